<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * What a vendor released over four years for models that it does not make any more, and for how long it went on signing
 * each build after the next had come out. Drawn by seed, so that the history is the same every time.
 */
final class PastBuilds
{
    private Randomizer $chance;

    /**
     * @param  list<string>  $models
     * @param  string  $first  when the first came out
     * @param  string  $last  when the last did
     * @param  \Closure(Randomizer, bool): int  $habit  days of signing after the next came out; given whether it is the
     *   last of its major
     * @param  array<string, mixed>  $usual  of every build
     */
    public function __construct(
        private readonly array $models,
        private readonly string $first,
        private readonly string $last,
        private readonly \Closure $habit,
        private readonly array $usual,
        int $seed,
    ) {
        $this->chance = new Randomizer(new Mt19937($seed));
    }

    /**
     * @param  list<array{string, string, string}>  $names  version, build, channel, in the order of their release
     * @param  string  $now  what is open then, stays open
     * @return list<array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}>
     */
    public function builds(array $names, string $now): array
    {
        $released = $this->released(count($names));
        $entries = [];
        foreach ($names as $i => [$version, $build, $channel]) {
            $next = self::next($names, $i);
            $isLast = $next === null || (int) $names[$next][0] !== (int) $version;
            $days = ($this->habit)($this->chance, $isLast);
            $until = $next === null ? null : $released[$next]->modify("+{$days} days");
            $isOpen = $until === null || $until >= new \DateTimeImmutable($now);
            $entries[] = [
                'build' => [
                    'version' => $version,
                    'build' => $build,
                    'channel' => $channel,
                    'releasedAt' => self::at($released[$i]),
                    'inPlaceFrom' => "<{$version}",
                ] + $this->usual,
                'packages' => [[
                    'hardwareIds' => $this->models,
                    'mebibytes' => 1,
                    'signing' => [[
                        'from' => self::at($released[$i]),
                        'until' => $isOpen ? null : self::at($until),
                        'announced' => false,
                    ]],
                ]],
            ];
        }

        return $entries;
    }

    /** @return list<\DateTimeImmutable> from the first to the last, unevenly */
    private function released(int $count): array
    {
        $gaps = array_map(fn (): int => $this->chance->getInt(60, 140), range(1, $count - 1));
        $first = new \DateTimeImmutable("{$this->first}T17:00:00Z");
        $days = (int) $first->diff(new \DateTimeImmutable("{$this->last}T17:00:00Z"))->days;
        [$released, $sum] = [[$first], 0];
        foreach ($gaps as $gap) {
            $sum += $gap;
            $released[] = $first->modify('+'.(int) round($days * $sum / array_sum($gaps)).' days');
        }

        return $released;
    }

    /**
     * A release is superseded by the next release, anything else by what comes next.
     *
     * @param  list<array{string, string, string}>  $names
     */
    private static function next(array $names, int $i): ?int
    {
        for ($next = $i + 1; $next < count($names); $next++) {
            if ($names[$i][2] !== 'release' || $names[$next][2] === 'release') {
                return $next;
            }
        }

        return null;
    }

    private static function at(\DateTimeImmutable $time): string
    {
        return $time->format('Y-m-d\TH:i:s\Z');
    }
}
