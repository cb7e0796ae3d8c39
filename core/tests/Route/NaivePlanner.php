<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

/**
 * The planning rules written a second time, on the bare documents, without a thought for speed: it tries every
 * sequence of builds and moves with every base, prices each, and throws away what another beats. It shares nothing
 * with the planner but PHP's own version_compare, which the planner does not use.
 */
final class NaivePlanner
{
    private const PLAIN = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'recordings',
        'call-log',
        'app-data',
        'home-layout',
        'settings',
        'wallpaper',
    ];

    private const ENCRYPTED = ['saved-passwords', 'health', 'accessory-pairing'];

    private const SYNC = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'app-data',
        'saved-passwords',
        'health',
    ];

    private const EXPORT = ['photos', 'messages', 'contacts', 'calendars', 'notes', 'recordings', 'call-log'];

    private int $now;

    /** @var list<array{ends: array<string, mixed>, key: string, price: list<float>}> */
    private array $routes = [];

    /**
     * @param  array<string, mixed>  $catalogue
     * @param  array<string, mixed>  $situation
     */
    private function __construct(private readonly array $catalogue, private readonly array $situation)
    {
        $this->now = (int) strtotime($situation['startsAt'] ?? $situation['now']);
    }

    /**
     * @param  array<string, mixed>  $catalogue
     * @param  array<string, mixed>  $situation
     * @return list<string> the unbeaten routes, best first, each as "move build, move build / base"
     */
    public static function plan(array $catalogue, array $situation): array
    {
        $planner = new self($catalogue, $situation);
        if (
            strtotime($situation['now']) <= strtotime($catalogue['freshUntil'])
            && $situation['device']['hardwareId'] !== null
        ) {
            $device = $situation['device'];
            $planner->step(
                [],
                $device['version'],
                $device['build'],
                $device['rollbackCounter'],
                0,
                $planner->safeguardMinutes(),
            );
        }

        return $planner->answer();
    }

    /**
     * @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs  move, build, package
     */
    private function step(array $legs, string $version, string $label, ?int $counter, int $erases, float $minutes): void
    {
        if ($legs !== []) {
            $this->arrive($legs, $erases, $minutes);
        }
        if (count($legs) === 3) {
            return;
        }
        foreach ($this->catalogue['builds'] as $build) {
            foreach (['erase-install', 'in-place-update', 'in-place-step-down'] as $move) {
                $package = $this->packageOf($build);
                if ($package === null || ! $this->allowed($build, $move, $version, $label, $counter, $legs)) {
                    continue;
                }
                $start =
                    $minutes
                    + $this->pert($package['bytes'] / $this->situation['bench']['linkBytesPerSecond'] / 60, true)
                    + (1 + 8 + 5) / 6;
                $moment = $legs === [] ? $this->now : $this->now + (int) floor($start * 60);
                if (! $this->signed($package, $moment)) {
                    continue;
                }
                $this->step(
                    [...$legs, [$move, $build, $package]],
                    $build['version'],
                    $build['build'],
                    $counter === null ? null : max($counter, $build['rollbackIndex']),
                    $erases + ($move === 'erase-install' ? 1 : 0),
                    $start + (8 + 40 + 15) / 6 + (4 + 24 + 12) / 6,
                );
            }
        }
    }

    /**
     * @param  array<string, mixed>  $build
     * @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs
     */
    private function allowed(
        array $build,
        string $move,
        string $version,
        string $label,
        ?int $counter,
        array $legs,
    ): bool {
        $device = $this->situation['device'];
        $goal = $this->situation['goal'];
        $higher = version_compare($build['version'], $version);
        $major = static fn (string $v): string => explode('.', $v)[0];

        $runs = $legs !== [] || ($device['bootable'] ?? true);

        return ! (
            ($device['bootable'] ?? true)
            && $build['version'] === $device['version']
            && $build['build'] === $device['build']
        )
            && ! in_array($build['build'], array_map(static fn (array $l): string => $l[1]['build'], $legs), true)
            && ($build['channel'] !== 'beta' || ($goal['exact'] ?? null) === $build['version'])
            && ($counter === null || $build['rollbackIndex'] >= $counter)
            && ($device['radioMinimum'] === null || $build['radioLevel'] >= $device['radioMinimum'])
            && match ($move) {
                'erase-install' => $build['eraseInstall'],
                'in-place-update' => $runs && $higher > 0 && $this->inRange($build['inPlaceFrom'], $version),
                default => $runs
                    && $higher < 0
                    && $major($build['version']) === $major($version)
                    && $this->inRange($build['stepDownFrom'], $version),
            };
    }

    /**
     * @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs
     */
    private function arrive(array $legs, int $erases, float $minutes): void
    {
        $end = $legs[count($legs) - 1][1];
        $bytes = array_sum(array_map(static fn (array $l): int => $l[2]['bytes'], $legs));
        $key = implode(', ', array_map(static fn (array $l): string => $l[0].' '.$l[1]['build'], $legs));
        if ($erases === 0 && ($this->situation['device']['dataOnDevice'] ?? true)) {
            $this->routes[] = [
                'ends' => $end,
                'key' => "{$key} / ",
                'price' => [0, 0, 0, 0, round($minutes, 6), $bytes],
            ];

            return;
        }
        foreach ($this->bases($end) as $base) {
            [$lost, $risk, $stale, $size] = $this->losses($base, $end);
            $back =
                $base === null
                    ? 0
                    : $this->pert($size / $this->situation['bench']['returnBytesPerSecond'] / 60, true)
                        + (3 + 20 + 10) / 6;
            $this->routes[] = [
                'ends' => $end,
                'key' => "{$key} / ".($base['id'] ?? ''),
                'price' => [$lost, $risk, $stale, $erases, round($minutes + $back, 6), $bytes],
            ];
        }
    }

    /**
     * @param  array<string, mixed>  $end
     * @return list<array<string, mixed>|null>
     */
    private function bases(array $end): array
    {
        $device = $this->situation['device'];
        $bases = [null];
        $planned = $this->situation['planned']['backup'];
        if ($planned !== 'none') {
            $schemas = [];
            foreach ($this->catalogue['builds'] as $build) {
                if ($build['build'] === $device['build'] && $build['version'] === $device['version']) {
                    $schemas = $build['storeSchemas'];
                }
            }
            $bases[] = [
                'id' => 'planned',
                'kinds' => $planned === 'plain' ? self::PLAIN : [...self::PLAIN, ...self::ENCRYPTED],
                'asOf' => $this->now,
                'schemas' => $schemas,
                'risky' => $this->unproven($device['version'], $end['version']),
            ];
        }
        foreach ($this->situation['backups'] as $b) {
            if ($b['where'] === 'cloud') {
                $risky = version_compare($b['madeOn'], $end['version']) > 0;
            } elseif (! $b['verified'] || ($b['encrypted'] && ! $b['passphraseProven'])) {
                continue;
            } else {
                $risky = $this->unproven($b['declaredVersion'], $end['version']);
            }
            $bases[] = [
                'id' => $b['id'],
                'kinds' => $b['kinds'],
                'asOf' => (int) strtotime($b['takenAt']),
                'schemas' => $b['storeSchemas'] ?? [],
                'risky' => $risky,
            ];
        }

        return $bases;
    }

    private function unproven(string $declared, string $installed): bool
    {
        return version_compare($declared, $installed) > 0 && (int) $declared - (int) $installed >= 2;
    }

    /**
     * @param  array<string, mixed>|null  $base
     * @param  array<string, mixed>  $end
     * @return array{int, int, int, int} lost, at risk, seconds out of date, bytes of the base
     */
    private function losses(?array $base, array $end): array
    {
        [$lost, $risk, $stale, $size] = [0, 0, 0, 0];
        foreach ($this->situation['device']['kinds'] as $k) {
            $kind = $k['kind'];
            if ($base !== null && in_array($kind, $base['kinds'], true)) {
                $size += $k['bytes'];
            }
            if (in_array($kind, ['payment-cards', 'sign-ins', 'esim'], true)) {
                continue;
            }
            $late = static fn (int $asOf): int => $k['lastChangedAt'] === null
                ? 0
                : max(0, (int) strtotime($k['lastChangedAt']) - $asOf);
            $options = [];
            $readable =
                $base === null
                || ! isset($base['schemas'][$kind], $end['storeSchemas'][$kind])
                || $base['schemas'][$kind] <= $end['storeSchemas'][$kind];
            if ($base !== null && in_array($kind, $base['kinds'], true) && $readable) {
                $options[] = [$base['risky'] ? 1 : 0, $late($base['asOf'])];
            }
            if (in_array($kind, self::SYNC, true) && $k['syncedAt'] !== null) {
                $options[] = [0, $late((int) strtotime($k['syncedAt']))];
            }
            foreach ($this->exports() as [$exported, $at]) {
                if ($exported === $kind && in_array($kind, self::EXPORT, true)) {
                    $options[] = [0, $late($at)];
                }
            }
            if ($options === []) {
                $lost++;
            } else {
                $risk += min($options)[0];
                $stale += min($options)[1];
            }
        }

        return [$lost, $risk, $stale, $size];
    }

    /** @return list<array{string, int}> a planned export stands for an older one */
    private function exports(): array
    {
        $planned = $this->situation['planned']['sideExports'];

        return [
            ...array_map(fn (string $k): array => [$k, $this->now], $planned),
            ...array_map(
                static fn (array $e): array => [$e['kind'], (int) strtotime($e['takenAt'])],
                array_values(
                    array_filter(
                        $this->situation['sideExports'],
                        static fn (array $e): bool => ! in_array($e['kind'], $planned, true),
                    ),
                ),
            ),
        ];
    }

    /** @return list<string> */
    private function answer(): array
    {
        $admitted = array_filter($this->routes, fn (array $r): bool => $this->admits($r['ends']));
        if (
            array_filter($admitted, static fn (array $r): bool => $r['ends']['channel'] === 'release') !== []
            && ! isset($this->situation['goal']['exact'])
        ) {
            $admitted = array_filter($admitted, static fn (array $r): bool => $r['ends']['channel'] === 'release');
        }
        $newest = null;
        foreach ($admitted as $r) {
            $above =
                $newest === null
                    ? 1
                    : (version_compare($r['ends']['version'], $newest['version'])
                    ?: strcmp($r['ends']['releasedAt'], $newest['releasedAt'])
                    ?: strcmp($newest['build'], $r['ends']['build']));
            $newest = $above > 0 ? $r['ends'] : $newest;
        }
        $left = array_values(array_filter($admitted, static fn (array $r): bool => $r['ends'] === $newest));
        $left = array_filter($left, static function (array $r) use ($left): bool {
            foreach ($left as $o) {
                $better = array_map(static fn (float|int $a, float|int $b): int => $a <=> $b, $o['price'], $r['price']);
                if (max($better) <= 0 && min($better) < 0) {
                    return false;
                }
            }

            return true;
        });
        usort(
            $left,
            static fn (array $a, array $b): int => $a['price'] <=> $b['price']
            ?: strcmp(
                (string) preg_replace('#planned$#', '', $a['key']),
                (string) preg_replace('#planned$#', '', $b['key']),
            ),
        );

        return array_column($left, 'key');
    }

    /** @param  array<string, mixed>  $build */
    private function admits(array $build): bool
    {
        $goal = $this->situation['goal'];

        return match (key($goal)) {
            'exact' => $build['version'] === $goal['exact'],
            'newestInMajor' => $build['channel'] !== 'beta' && (int) $build['version'] === $goal['newestInMajor'],
            'newestBelow' => $build['channel'] !== 'beta'
                && version_compare($build['version'], $goal['newestBelow']) < 0,
            default => $build['channel'] !== 'beta'
                && strtotime($build['releasedAt']) < strtotime($goal['newestBefore']),
        };
    }

    /**
     * @param  array<string, mixed>  $build
     * @return array<string, mixed>|null
     */
    private function packageOf(array $build): ?array
    {
        foreach ($build['packages'] as $package) {
            if (in_array($this->situation['device']['hardwareId'], $package['hardwareIds'], true)) {
                return $package;
            }
        }

        return null;
    }

    /** @param  array<string, mixed>  $package */
    private function signed(array $package, int $moment): bool
    {
        foreach ($package['signing'] as $w) {
            if (strtotime($w['from']) <= $moment && ($w['until'] === null || $moment < strtotime($w['until']))) {
                return true;
            }
        }

        return false;
    }

    /** The ranges of these tests are ">=a <b"; in Composer's syntax a bound takes its own pre-releases along. */
    private function inRange(?string $range, string $version): bool
    {
        if ($range === null) {
            return false;
        }
        [$from, $below] = explode(' ', $range);

        return version_compare($version, substr($from, 2).'-dev', '>=')
            && version_compare($version, substr($below, 1).'-dev', '<');
    }

    private function safeguardMinutes(): float
    {
        $bytes =
            $this->situation['planned']['backup'] === 'none'
                ? 0
                : array_sum(array_column($this->situation['device']['kinds'], 'bytes'));

        return (1 + 8 + 4) / 6
            + $this->pert($bytes / $this->situation['bench']['backupBytesPerSecond'] / 60, true)
            + $this->pert($bytes / 200_000_000 / 60, true);
    }

    private function pert(float $minutes, bool $moving): float
    {
        return $moving ? (0.9 * $minutes + 4 * $minutes + 1.5 * $minutes) / 6 : $minutes;
    }
}
