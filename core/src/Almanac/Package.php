<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Route\PackageName;

/** The firmware file of one build for one or more hardware ids. */
final readonly class Package
{
    /**
     * @param  list<string>  $hardwareIds
     * @param  string  $sha256  64 lower-case hex digits
     * @param  list<SigningWindow>  $signing
     */
    public function __construct(
        public array $hardwareIds,
        public string $fileName,
        public int $bytes,
        public string $sha256,
        public string $url,
        public array $signing,
    ) {
    }

    public function name(): PackageName
    {
        return new PackageName($this->fileName, $this->bytes, $this->sha256);
    }

    public function windowAt(\DateTimeImmutable $moment): ?SigningWindow
    {
        foreach ($this->signing as $window) {
            if ($window->holds($moment)) {
                return $window;
            }
        }

        return null;
    }
}
