<?php

declare(strict_types=1);

namespace App\Watch;

use JadeStep\Core\Watch\Alarm;

/** Something that holds at this moment, and that somebody may want to be told of. */
final readonly class Condition
{
    /**
     * @param  string  $about  what it is about: as long as it holds, it is the same
     * @param  string  $subject  one line, without a serial or an owner's name
     * @param  string  $path  of the page where it is mended, behind `#`
     * @param  \DateTimeImmutable|null  $since  where that is known; else since it was first seen
     */
    public function __construct(
        public Alarm $alarm,
        public string $about,
        public string $subject,
        public string $detail,
        public string $path,
        public ?\DateTimeImmutable $since = null,
    ) {
    }

    public function key(): string
    {
        return "{$this->alarm->value}|".(strlen($this->about) > 120 ? hash('sha256', $this->about) : $this->about);
    }
}
