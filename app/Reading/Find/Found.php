<?php

declare(strict_types=1);

namespace App\Reading\Find;

/** Something that was found by words, and where it is looked at. */
final readonly class Found implements \JsonSerializable
{
    /**
     * @param  string  $what  job, device, build, bag, batch, act, person, bench or vendor
     * @param  string  $about  what tells it from others of the same name
     * @param  string  $path  of the front end
     */
    public function __construct(
        public string $what,
        public string $title,
        public string $about,
        public string $path,
    ) {
    }

    public function jsonSerialize(): mixed
    {
        return get_object_vars($this);
    }
}
