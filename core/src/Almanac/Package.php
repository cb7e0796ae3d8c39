<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Route\PackageName;

/** The firmware file of one build for one or more hardware ids. */
final readonly class Package
{
    /** @var list<SigningWindow> what it is signed in, in the order of time, none overlapping or touching another */
    public array $windows;

    /**
     * @param  list<string>  $hardwareIds
     * @param  string  $sha256  64 lower-case hex digits
     * @param  list<SigningWindow>  $signing  as they are told
     * @param  \DateTimeImmutable  $freshUntil  until when the word of the catalogue that carries it is good
     */
    public function __construct(
        public array $hardwareIds,
        public string $fileName,
        public int $bytes,
        public string $sha256,
        public string $url,
        public array $signing,
        public \DateTimeImmutable $freshUntil,
    ) {
        $this->windows = SigningWindow::joined($signing);
    }

    public function name(): PackageName
    {
        return new PackageName($this->fileName, $this->bytes, $this->sha256);
    }

    public function isStaleAt(\DateTimeImmutable $now): bool
    {
        return $now > $this->freshUntil;
    }

    public function windowAt(\DateTimeImmutable $moment): ?SigningWindow
    {
        foreach ($this->windows as $window) {
            if ($window->holds($moment)) {
                return $window;
            }
        }

        return null;
    }
}
