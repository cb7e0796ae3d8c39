<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/** A small value that is kept with a row, and knows its own fields. */
interface Kept
{
    public static function ofFields(Fields $fields): self;

    /** @return array<string, mixed> ready for json_encode */
    public function fields(): array;
}
