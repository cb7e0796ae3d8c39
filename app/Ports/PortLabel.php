<?php

declare(strict_types=1);

namespace App\Ports;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** A port of a bench, as the link names it, and as people do. */
final readonly class PortLabel implements Kept
{
    public function __construct(public string $port, public string $label)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->string('port'), $fields->maybeString('label') ?? '');
    }

    public function fields(): array
    {
        return ['port' => $this->port, 'label' => $this->label];
    }
}
