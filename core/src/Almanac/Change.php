<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** One thing that a newer catalogue says otherwise than the one before. */
final readonly class Change
{
    /**
     * @param  list<string>  $hardwareIds  the models that it touches
     * @param  string|null  $version  in machine form, where it is about a build
     * @param  string  $words  one sentence
     */
    public function __construct(
        public ChangeCode $code,
        public string $osLine,
        public ?string $version,
        public ?string $build,
        public array $hardwareIds,
        public string $words,
    ) {
    }

    public function touches(string $osLine, ?string $hardwareId): bool
    {
        return $this->osLine === $osLine && ($hardwareId === null || in_array($hardwareId, $this->hardwareIds, true));
    }
}
