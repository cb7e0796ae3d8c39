<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** One missing item that is put back by itself, from a bag that has it. */
final readonly class ItemImport implements Kept
{
    /**
     * @param  string  $path  in that bag
     * @param  string  $sha256  of its content, by which it is known whatever its name is there
     * @param  string  $detail  why it was not put back
     */
    public function __construct(
        public Kind $kind,
        public string $path,
        public string $bag,
        public string $sha256,
        public ImportState $state,
        public string $detail,
    ) {
    }

    public function key(): string
    {
        return "{$this->kind->value}/{$this->path}";
    }

    public function isSameItemAs(self $other): bool
    {
        return $this->kind === $other->kind && $this->sha256 === $other->sha256;
    }

    /** @param  string  $detail  empty where it went well */
    public function settled(string $detail): self
    {
        $state = $detail === '' ? ImportState::Done : ImportState::Refused;

        return new self($this->kind, $this->path, $this->bag, $this->sha256, $state, $detail);
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->enum('kind', Kind::class),
            $fields->string('path'),
            $fields->string('bag'),
            $fields->string('sha256'),
            $fields->enum('state', ImportState::class),
            $fields->string('detail'),
        );
    }

    public function fields(): array
    {
        return [
            'kind' => $this->kind->value, 'path' => $this->path, 'bag' => $this->bag, 'sha256' => $this->sha256,
            'state' => $this->state->value, 'detail' => $this->detail,
        ];
    }
}
