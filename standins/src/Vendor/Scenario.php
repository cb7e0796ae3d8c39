<?php

declare(strict_types=1);

namespace Standins\Vendor;

/** One invented vendor: its models, builds and signing windows. */
abstract readonly class Scenario
{
    /** @param  \DateTimeImmutable  $anchor  when this service was set up: announced ends lie ahead of it */
    final public function __construct(protected \DateTimeImmutable $anchor)
    {
    }

    /** @return array<string, class-string<self>> by vendor id */
    public static function all(): array
    {
        return ['brightmere' => Brightmere::class, 'osterly' => Osterly::class];
    }

    abstract public function name(): string;

    /** @return list<array<string, mixed>> */
    abstract public function models(): array;

    /**
     * @return list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}>
     */
    abstract public function builds(): array;

    /**
     * What came out for models that are not made any more.
     *
     * @return list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}>
     */
    abstract public function past(): array;

    /** @return list<array<string, string>> */
    abstract public function accessories(): array;

    /**
     * @param  array<string, mixed>  $build  what differs from the usual
     * @param  list<array{list<string>, int, list<array<string, mixed>>}>  $packages  models, mebibytes, windows
     * @return array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}
     */
    protected static function entry(array $build, array $packages): array
    {
        return [
            'build' => ['releasedAt' => "{$build['releasedAt']}T17:00:00Z"] + $build,
            'packages' => array_map(
                static fn (array $p): array => ['hardwareIds' => $p[0], 'mebibytes' => $p[1], 'signing' => $p[2]],
                $packages,
            ),
        ];
    }

    /** @return array<string, mixed> */
    protected static function closed(string $from, string $until): array
    {
        return ['from' => "{$from}T17:00:00Z", 'until' => "{$until}T17:00:00Z", 'announced' => false];
    }

    /** @return array<string, mixed> */
    protected static function open(string $from): array
    {
        return ['from' => "{$from}T17:00:00Z", 'until' => null, 'announced' => false];
    }

    /** @return array<string, mixed> open, with an end that is known ahead */
    protected function ending(string $from, int $daysAhead): array
    {
        return [
            'from' => "{$from}T17:00:00Z",
            'until' => $this->anchor->modify("+{$daysAhead} days")->format('Y-m-d\T18:00:00\Z'),
            'announced' => true,
        ];
    }
}
