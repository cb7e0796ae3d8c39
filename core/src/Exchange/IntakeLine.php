<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Device\Said;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Version\Version;

/** One device of a batch, with everything that is wrong with its line. */
final readonly class IntakeLine
{
    /**
     * @param  array<string, string>  $cells  by column, empty where nothing was said
     * @param  Identity|null  $identity  null where the line is too bad to look the model up
     * @param  list<string>  $faults
     */
    public function __construct(
        public int $line,
        public array $cells,
        public ?Goal $goal,
        public ?Identity $identity,
        public array $faults,
    ) {
    }

    public function withFault(string $fault): self
    {
        return new self($this->line, $this->cells, $this->goal, $this->identity, [...$this->faults, $fault]);
    }

    /** Of a good line. */
    public function said(): Said
    {
        $cell = fn (string $column): ?string => ($this->cells[$column] ?? '') === '' ? null : $this->cells[$column];
        $imei = $cell('imei');
        $version = $cell('version');

        return Said::of(
            $cell('serial'),
            $imei === null ? null : Imei::parse($imei),
            $cell('modelName'),
            $cell('hardwareId'),
            null,
            null,
            $version === null ? null : Version::parse($version),
            $cell('build'),
        );
    }

    public function isGood(): bool
    {
        return $this->faults === [];
    }
}
