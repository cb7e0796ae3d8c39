<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** One thing that a device tells otherwise than people had said. */
final readonly class Difference implements Kept
{
    public function __construct(public string $field, public string $name, public string $said, public string $read)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->string('field'),
            $fields->string('name'),
            $fields->string('said'),
            $fields->string('read'),
        );
    }

    public function fields(): array
    {
        return get_object_vars($this);
    }
}
