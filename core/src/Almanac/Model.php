<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** What one hardware id is called, and how it is handled. */
final readonly class Model
{
    /**
     * @param  list<string>  $tac  type allocation codes, eight digits each
     * @param  list<KeyAction>  $recoverySequence
     * @param  list<KeyPlace>  $keys  where its keys are, where that is told
     */
    public function __construct(
        public string $hardwareId,
        public string $name,
        public string $variant,
        public Form $form,
        public string $osLine,
        public array $tac,
        public array $recoverySequence,
        public Sold $sold,
        public array $keys = [],
    ) {
    }

    /** @return KeyPlace|null null where the catalogue does not tell */
    public function key(string $name): ?KeyPlace
    {
        return array_values(array_filter($this->keys, static fn (KeyPlace $k): bool => $k->name === $name))[0] ?? null;
    }

    /** "Fenn 7 Atlantic" */
    public function called(): string
    {
        return trim("{$this->name} {$this->variant}");
    }

    /** "Fenn 7 Atlantic (FN7-2)" */
    public function label(): string
    {
        return "{$this->called()} ({$this->hardwareId})";
    }
}
