<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

/**
 * The planning rules written a second time, on the bare documents, without a thought for speed: it tries every
 * sequence of builds, packages and moves with every base, prices each, and throws away what another beats. It shares
 * nothing with the planner but PHP's own version_compare, which the planner does not use.
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

    private const RECOVERY = (1 + 4 * 2 + 5) / 6;

    private const INSTALL_AND_WAKE = (8 + 4 * 10 + 15) / 6 + (4 + 4 * 6 + 12) / 6;

    private float $begins;

    private int $now;

    private string $planned;

    /** @var list<array<string, mixed>> each build once, with `carried`: its packages, their freshness and windows */
    private array $builds = [];

    /** @var array<string, array{ends: array<string, mixed>, key: string, price: list<float>, until: list<float>}> */
    private array $routes = [];

    /**
     * @param  list<array<string, mixed>>  $catalogues
     * @param  array<string, mixed>  $situation
     */
    private function __construct(array $catalogues, private readonly array $situation)
    {
        $this->now = (int) strtotime($situation['now']);
        $this->begins = (float) strtotime($situation['startsAt'] ?? $situation['now']);
        $this->planned = $situation['device']['dataOnDevice'] ?? true ? $situation['planned']['backup'] : 'none';
        usort($catalogues, static fn (array $a, array $b): int => $b['issuedAt'] <=> $a['issuedAt']);
        $builds = [];
        foreach ($catalogues as $catalogue) {
            foreach ($catalogue['builds'] as $build) {
                $name = $build['version'].' '.$build['build'];
                $builds[$name] ??= $build + ['carried' => []];
                foreach ($build['packages'] as $package) {
                    $builds[$name]['carried'][] = $package + [
                        'fresh' => strtotime($catalogue['freshUntil']),
                        'windows' => self::windows($package),
                    ];
                }
            }
        }
        $this->builds = array_values($builds);
    }

    /**
     * @param  list<array<string, mixed>>  $catalogues
     * @param  array<string, mixed>  $situation
     * @return array{routes: list<string>, rejected: array<string, list<string>>, nearest: ?string} the unbeaten
     *   routes, best first, each as "move build, move build / base"; the codes against each build that the goal admits
     *   and no route ends on, sorted; and the build that is nearest
     */
    public static function plan(array $catalogues, array $situation): array
    {
        $planner = new self($catalogues, $situation);
        $device = $situation['device'];
        if ($device['hardwareId'] !== null) {
            $planner->step([], $device['version'], $device['rollbackCounter'] ?? 0);
        }

        return $planner->answer();
    }

    /** @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs  move, build, package */
    private function step(array $legs, string $version, int $counter): void
    {
        if ($legs !== []) {
            $this->arrive($legs);
        }
        foreach (count($legs) === 3 ? [] : $this->builds as $build) {
            foreach (['erase-install', 'in-place-update', 'in-place-step-down'] as $move) {
                foreach ($this->allowed($build, $move, $version, $counter, $legs) ? $this->open($build) : [] as $p) {
                    $raised = max($counter, $build['rollbackIndex']);
                    $this->step([...$legs, [$move, $build, $p]], $build['version'], $raised);
                }
            }
        }
    }

    /**
     * @param  array<string, mixed>  $build
     * @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs
     */
    private function allowed(array $build, string $move, string $version, int $counter, array $legs): bool
    {
        $device = $this->situation['device'];
        $goal = $this->situation['goal'];
        $before = array_map(static fn (array $l): string => $l[1]['version'].' '.$l[1]['build'], $legs);
        $runs = $legs !== [] || ($device['bootable'] ?? true);

        return ! $this->isInstalled($build)
            && ! in_array($build['version'].' '.$build['build'], $before, true)
            && ($build['channel'] !== 'beta' || ($goal['exact'] ?? null) === $build['version'])
            && ! $this->isStale($build)
            && $build['rollbackIndex'] >= $counter
            && ($device['radioMinimum'] === null || $build['radioLevel'] >= $device['radioMinimum'])
            && ! $this->needsNewerAgent($build)
            && $this->leads($build, $move, $version, $runs);
    }

    /** @param  array<string, mixed>  $build */
    private function leads(array $build, string $move, string $version, bool $runs): bool
    {
        $higher = version_compare($build['version'], $version);

        return match ($move) {
            'erase-install' => $build['eraseInstall'],
            'in-place-update' => $runs && $higher > 0 && $this->inRange($build['inPlaceFrom'], $version),
            default => $runs
                && $higher < 0
                && (int) $build['version'] === (int) $version
                && $this->inRange($build['stepDownFrom'], $version),
        };
    }

    /** @param  array<string, mixed>  $build */
    private function isInstalled(array $build): bool
    {
        $device = $this->situation['device'];

        return ($device['bootable'] ?? true)
            && $build['version'] === $device['version']
            && $build['build'] === $device['build'];
    }

    /** @param  array<string, mixed>  $build */
    private function needsNewerAgent(array $build): bool
    {
        $agent = $this->situation['bench']['hostAgent'];
        $wanted = $build['hostAgentMinimum'] ?? null;

        return $agent !== null && $wanted !== null && version_compare($agent, $wanted) < 0;
    }

    /**
     * @param  array<string, mixed>  $build
     * @return list<array<string, mixed>> packages for the device
     */
    private function own(array $build): array
    {
        $id = $this->situation['device']['hardwareId'];

        return array_values(array_filter(
            $build['carried'],
            static fn (array $p): bool => in_array($id, $p['hardwareIds'], true),
        ));
    }

    /**
     * @param  array<string, mixed>  $build
     * @return list<array<string, mixed>> those of fresh catalogues, where there are any
     */
    private function known(array $build): array
    {
        $fresh = array_filter($this->own($build), fn (array $p): bool => $this->now <= $p['fresh']);

        return $fresh === [] ? $this->own($build) : array_values($fresh);
    }

    /**
     * @param  array<string, mixed>  $build
     * @return list<array<string, mixed>> without those whose windows were all over before the work begins
     */
    private function open(array $build): array
    {
        $ends = fn (array $package): array => array_column($package['windows'], 'until');

        return array_values(array_filter(
            $this->known($build),
            fn (array $package): bool => max([0, ...$ends($package)]) > $this->begins,
        ));
    }

    /** @param  array<string, mixed>  $build */
    private function isStale(array $build): bool
    {
        $packages = $this->own($build) === [] ? $build['carried'] : $this->own($build);

        return max(array_column($packages, 'fresh')) < $this->now;
    }

    /** @param  list<array{string, array<string, mixed>, array<string, mixed>}>  $legs */
    private function arrive(array $legs): void
    {
        $end = $legs[count($legs) - 1][1];
        $erases = count(array_filter($legs, static fn (array $l): bool => $l[0] === 'erase-install'));
        $bytes = array_sum(array_map(static fn (array $l): int => $l[2]['bytes'], $legs));
        $minutes = $this->safeguardMinutes();
        foreach ($legs as $leg) {
            $minutes += $this->fetchMinutes($leg[2]);
        }
        $until = [];
        foreach ($legs as $leg) {
            $minutes += self::RECOVERY;
            $window = $this->windowAt($leg[2], $this->begins + $minutes * 60);
            if ($window === null) {
                return;
            }
            $until[] = $window['until'] ?? INF;
            $minutes += self::INSTALL_AND_WAKE;
        }
        $key = implode(', ', array_map(static fn (array $l): string => $l[0].' '.$l[1]['build'], $legs));
        if ($erases === 0 && ($this->situation['device']['dataOnDevice'] ?? true)) {
            $this->keep("{$key} / ", $end, [0, 0, 0, 0, round($minutes, 6), $bytes], $until);

            return;
        }
        foreach ($this->bases($end) as $base) {
            [$lost, $risk, $stale, $size] = $this->losses($base, $end);
            $back =
                $base === null
                    ? 0
                    : $this->bringing($base, $size) + (3 + 20 + 10) / 6;
            $price = [$lost, $risk, $stale, $erases, round($minutes + $back, 6), $bytes];
            $this->keep("{$key} / ".($base['id'] ?? ''), $end, $price, $until);
        }
    }

    /** @param  array<string, mixed>  $base */
    private function bringing(array $base, int $size): float
    {
        $bench = $this->situation['bench'];
        if (! ($base['cloud'] ?? false)) {
            return $this->moving($size / $bench['returnBytesPerSecond']);
        }
        // a cloud return takes 5 minutes to 2 hours
        $byLine = $size / $bench['linkBytesPerSecond'] / 60;
        $within = static fn (float $f): float => max(5, min(120, $byLine * $f));
        [$low, $likely, $high] = array_map($within, [0.9, 1, 1.5]);

        return ($low + 4 * $likely + $high) / 6;
    }

    /**
     * Of several packages of one build the one whose window ends last is taken.
     *
     * @param  array<string, mixed>  $end
     * @param  list<float>  $price
     * @param  list<float>  $until
     */
    private function keep(string $key, array $end, array $price, array $until): void
    {
        if (! isset($this->routes[$key]) || $until > $this->routes[$key]['until']) {
            $this->routes[$key] = ['ends' => $end, 'key' => $key, 'price' => $price, 'until' => $until];
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
        if ($this->planned !== 'none') {
            $schemas = [];
            foreach ($this->builds as $build) {
                if ($build['build'] === $device['build'] && $build['version'] === $device['version']) {
                    $schemas = $build['storeSchemas'];
                }
            }
            $bases[] = [
                'id' => 'planned',
                'kinds' => array_column(array_filter(
                    $device['kinds'],
                    fn (array $k): bool => $k['items'] > 0 && $this->carries($k['kind']),
                ), 'kind'),
                'asOf' => (int) $this->begins,
                'schemas' => $schemas,
                'risky' => (int) $device['version'] - (int) $end['version'] >= 2,
            ];
        }
        foreach ($this->situation['backups'] as $b) {
            if ($b['where'] === 'cloud') {
                $risky = version_compare($b['madeOn'], $end['version']) > 0;
            } elseif (! $b['verified'] || ($b['encrypted'] && ! $b['passphraseProven'])) {
                continue;
            } else {
                $risky = (int) $b['madeOn'] - (int) $end['version'] >= 2;
            }
            $bases[] = [
                'id' => $b['id'],
                'kinds' => $b['kinds'],
                'asOf' => (int) strtotime($b['takenAt']),
                'schemas' => $b['storeSchemas'] ?? [],
                'risky' => $risky,
                'cloud' => $b['where'] === 'cloud',
            ];
        }

        return $bases;
    }

    private function carries(string $kind): bool
    {
        return match ($this->planned) {
            'plain' => in_array($kind, self::PLAIN, true),
            'encrypted' => in_array($kind, [...self::PLAIN, ...self::ENCRYPTED], true),
            default => false,
        };
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
            ...array_map(fn (string $k): array => [$k, (int) $this->begins], $planned),
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

    /** @return array{routes: list<string>, rejected: array<string, list<string>>, nearest: ?string} */
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

        return [
            'routes' => array_column($left, 'key'),
            'rejected' => $this->rejected($newest),
            'nearest' => $newest === null ? $this->nearest() : null,
        ];
    }

    /**
     * @param  array<string, mixed>|null  $newest
     * @return array<string, list<string>>
     */
    private function rejected(?array $newest): array
    {
        $rejected = [];
        foreach ($this->builds as $build) {
            if ($this->admits($build) && $build !== $newest) {
                $codes = $newest === null && $this->isInstalled($build) ? ['same-build'] : $this->against($build);
                sort($codes);
                $rejected[$build['build']] = $codes;
            }
        }
        ksort($rejected);

        return array_filter($rejected);
    }

    /**
     * @param  array<string, mixed>  $build
     * @return list<string>
     */
    private function against(array $build): array
    {
        $device = $this->situation['device'];
        $runs = $device['bootable'] ?? true;
        $version = $device['version'];
        $codes = [];
        if ($device['hardwareId'] === null) {
            $codes[] = 'model-unresolved';
        } elseif ($this->own($build) === []) {
            $codes[] = 'wrong-model';
        } else {
            $codes = $this->againstWindows($build);
        }
        $this->isStale($build) && $codes[] = 'almanac-stale';
        $build['rollbackIndex'] < ($device['rollbackCounter'] ?? 0) && $codes[] = 'rollback-floor';
        $build['radioLevel'] < ($device['radioMinimum'] ?? 0) && $codes[] = 'radio-mismatch';
        $this->needsNewerAgent($build) && $codes[] = 'host-agent-old';
        $this->isInstalled($build) && $codes[] = 'same-build';
        $some = array_filter(
            ['erase-install', 'in-place-update', 'in-place-step-down'],
            fn (string $move): bool => $this->leads($build, $move, $version, $runs),
        );
        if ($codes !== [] || $some === []) {
            $none = ! $build['eraseInstall'] && $build['inPlaceFrom'] === null && $build['stepDownFrom'] === null;
            if ($build['inPlaceFrom'] !== null || $none) {
                version_compare($build['version'], $version) > 0 || $codes[] = 'not-newer';
                $this->inRange($build['inPlaceFrom'], $version) || $codes[] = 'not-accepted-in-place';
            }
            if ($build['stepDownFrom'] !== null || $none) {
                (int) $build['version'] === (int) $version || $codes[] = 'major-step-in-place';
                $this->inRange($build['stepDownFrom'], $version) || $codes[] = 'not-accepted-step-down';
            }
        }

        return [...$codes, ...$build['eraseInstall'] ? [] : ['in-place-only']];
    }

    /**
     * @param  array<string, mixed>  $build
     * @return list<string>
     */
    private function againstWindows(array $build): array
    {
        $windows = [];
        foreach ($this->known($build) as $package) {
            $at = $this->begins + ($this->safeguardMinutes() + $this->fetchMinutes($package) + self::RECOVERY) * 60;
            if ($this->windowAt($package, $at) !== null) {
                return [];
            }
            $windows = [...$windows, ...$package['windows']];
        }
        foreach ($windows as $w) {
            if ($w['from'] <= $this->begins && $this->begins < $w['until']) {
                return ['closes-too-soon'];
            }
        }
        $later = array_filter($windows, fn (array $w): bool => $w['from'] > $this->begins);

        return $windows !== [] && count($later) === count($windows) ? ['window-not-open-yet'] : ['window-closed'];
    }

    private function nearest(): ?string
    {
        $device = $this->situation['device'];
        $goal = $this->situation['goal'];
        $installed = null;
        foreach ($this->builds as $build) {
            $isIt = $build['version'] === $device['version'] && $build['build'] === $device['build'];
            $installed = $isIt ? $build : $installed;
        }
        $stands = $installed ?? ['version' => $device['version'], 'channel' => 'release', 'releasedAt' => '9999-01-01'];
        if (($device['bootable'] ?? true) && $this->admits($stands)) {
            return null;
        }
        $above = static fn (array $b): bool => match (key($goal)) {
            'exact' => version_compare($b['version'], $goal['exact']) > 0,
            'newestInMajor' => (int) $b['version'] > $goal['newestInMajor'],
            'newestBelow' => version_compare($b['version'], $goal['newestBelow']) >= 0,
            default => strtotime($b['releasedAt']) >= strtotime($goal['newestBefore']),
        };
        $best = null;
        foreach ($this->routes as $route) {
            $b = $route['ends'];
            $down = version_compare($b['version'], $device['version']);
            if ($b['channel'] === 'beta' || $down === 0 || ($down < 0) !== $above($stands)) {
                continue;
            }
            $passed = $above($b) !== $above($stands); // beyond what was asked
            // from what was asked outwards: closest first, what lies on the way before what lies beyond
            $up = $above($stands) !== $passed ? 1 : -1;
            $rank = static fn (array $x): array => [$x['passed'], $x['up']];
            $candidate = ['passed' => $passed, 'up' => $up, 'b' => $b];
            $nearer =
                $best === null
                    ? -1
                    : ($rank($candidate)[0] <=> $rank($best)[0]
                    ?: $up * version_compare($b['version'], $best['b']['version'])
                    ?: strcmp($best['b']['releasedAt'], $b['releasedAt'])
                    ?: strcmp($b['build'], $best['b']['build']));
            $best = $nearer < 0 ? $candidate : $best;
        }

        return $best['b']['build'] ?? null;
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
     * @param  array<string, mixed>  $package
     * @return array{from: float, until: float}|null
     */
    private function windowAt(array $package, float $moment): ?array
    {
        foreach ($package['windows'] as $w) {
            if ($w['from'] <= $moment && $moment < $w['until']) {
                return $w;
            }
        }

        return null;
    }

    /**
     * What overlaps or touches is grown together, until nothing does any more.
     *
     * @param  array<string, mixed>  $package
     * @return list<array{from: float, until: float}>
     */
    private static function windows(array $package): array
    {
        $all = array_map(static fn (array $w): array => [
            'from' => (float) strtotime($w['from']),
            'until' => $w['until'] === null ? INF : (float) strtotime($w['until']),
        ], $package['signing']);
        do {
            $grown = false;
            foreach ($all as $i => $a) {
                foreach ($all as $j => $b) {
                    if ($i !== $j && $a['from'] <= $b['until'] && $b['from'] <= $a['until']) {
                        $all[$i] = ['from' => min($a['from'], $b['from']), 'until' => max($a['until'], $b['until'])];
                        unset($all[$j]);
                        $grown = true;
                        break 2;
                    }
                }
            }
        } while ($grown);

        return array_values($all);
    }

    /** The ranges of these tests are ">=a <b". */
    private function inRange(?string $range, string $version): bool
    {
        if ($range === null) {
            return false;
        }
        [$from, $below] = explode(' ', $range);

        return version_compare($version, substr($from, 2), '>=') && version_compare($version, substr($below, 1), '<');
    }

    private function safeguardMinutes(): float
    {
        $bytes = array_sum(array_column(
            array_filter($this->situation['device']['kinds'], fn (array $k): bool => $this->carries($k['kind'])),
            'bytes',
        ));

        return (1 + 8 + 4) / 6
            + $this->moving($bytes / $this->situation['bench']['backupBytesPerSecond'])
            + $this->moving($bytes / 200_000_000);
    }

    /** @param  array<string, mixed>  $package */
    private function fetchMinutes(array $package): float
    {
        return $this->moving($package['bytes'] / $this->situation['bench']['linkBytesPerSecond']);
    }

    private function moving(float $seconds): float
    {
        return (0.9 + 4 + 1.5) / 6 * $seconds / 60;
    }
}
