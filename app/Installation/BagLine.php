<?php

declare(strict_types=1);

namespace App\Installation;

use JadeStep\Core\Exchange\Fields;

/** A bag as an own backup lists it. */
final readonly class BagLine
{
    /**
     * @param  int  $bytes  of its payload
     * @param  string  $digest  of all of it, as the core's Fingerprint makes it
     */
    public function __construct(
        public string $id,
        public string $serial,
        public string $state,
        public int $bytes,
        public string $digest,
    ) {
    }

    public static function of(Fields $f): self
    {
        return new self($f->string('id'), $f->string('serial'), $f->string('state'), $f->int('bytes'),
            $f->string('digest'));
    }

    /** @return string a line of JSON, without its end */
    public function text(): string
    {
        return (string) json_encode(get_object_vars($this), JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    }
}
