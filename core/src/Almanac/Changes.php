<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Time\Rfc3339;

/** Compares two catalogues of one vendor. What is open or closed is judged at the moment that the newer was issued. */
final readonly class Changes
{
    private function __construct(private \DateTimeImmutable $moment)
    {
    }

    /** @return list<Change> in the order of models, then of the newer catalogue's builds */
    public static function between(Catalogue $before, Catalogue $after): array
    {
        $changes = new self($after->issuedAt);

        return [...$changes->ofModels($before, $after), ...$changes->ofBuilds($before, $after)];
    }

    /** @return list<Change> */
    private function ofModels(Catalogue $before, Catalogue $after): array
    {
        $old = array_column($before->models, null, 'hardwareId');
        $new = array_column($after->models, null, 'hardwareId');
        $say = static fn (ChangeCode $code, Model $m, string $verb): Change => new Change(
            $code,
            $m->osLine,
            null,
            null,
            [$m->hardwareId],
            "The model {$m->name} {$m->variant} ({$m->hardwareId}) {$verb}.",
        );

        return [
            ...array_map(
                static fn (Model $m): Change => $say(ChangeCode::ModelAdded, $m, 'was added'),
                array_values(array_diff_key($new, $old)),
            ),
            ...array_map(
                static fn (Model $m): Change => $say(ChangeCode::ModelRemoved, $m, 'is not named any more'),
                array_values(array_diff_key($old, $new)),
            ),
        ];
    }

    /** @return list<Change> */
    private function ofBuilds(Catalogue $before, Catalogue $after): array
    {
        $old = self::byName($before->builds);
        $new = self::byName($after->builds);
        $found = [];
        foreach ($new as $name => $build) {
            $found[] = isset($old[$name])
                ? $this->ofBuild($old[$name], $build)
                : [self::change(ChangeCode::BuildAdded, $build, null, 'was added')];
        }
        foreach (array_diff_key($old, $new) as $build) {
            $found[] = [self::change(ChangeCode::BuildRemoved, $build, null, 'is not named any more')];
        }

        return array_merge(...$found);
    }

    /**
     * @param  list<Build>  $builds
     * @return array<string, Build>
     */
    private static function byName(array $builds): array
    {
        $named = [];
        foreach ($builds as $build) {
            $named["{$build->osLine} {$build->version} {$build->build}"] = $build;
        }

        return $named;
    }

    /** @return list<Change> */
    private function ofBuild(Build $old, Build $new): array
    {
        $found =
            self::rules($old) === self::rules($new)
                ? []
                : [self::change(ChangeCode::RulesChanged, $new, null, 'is installed by other rules now')];
        foreach ($new->packages as $package) {
            $was = self::packageBefore($old, $package);
            $found = [
                ...$found,
                ...$was === null
                    ? [
                        self::change(
                            ChangeCode::PackageChanged,
                            $new,
                            $package,
                            "has a package for {$package->fileName} now",
                        ),
                    ]
                    : $this->ofPackage($was, $package, $new),
            ];
        }

        return $found;
    }

    private static function packageBefore(Build $old, Package $package): ?Package
    {
        $of = [];
        foreach ($package->hardwareIds as $id) {
            array_push($of, ...$old->packagesFor($id));
        }
        foreach ($of as $before) {
            if ($before->sha256 === $package->sha256) {
                return $before;
            }
        }
        foreach ($of as $before) {
            if ($before->fileName === $package->fileName) {
                return $before;
            }
        }

        return $of[0] ?? null;
    }

    /** @return list<Change> */
    private function ofPackage(Package $old, Package $new, Build $build): array
    {
        $found =
            $old->sha256 === $new->sha256
                ? []
                : [
                    self::change(
                        ChangeCode::PackageChanged,
                        $build,
                        $new,
                        'has another file now; a package fetched before is not it',
                    ),
                ];
        foreach ($new->windows as $window) {
            $found = [...$found, ...$this->ofWindow(self::windowFrom($old, $window->from), $window, $build, $new)];
        }
        foreach ($old->windows as $window) {
            if (self::windowFrom($new, $window->from) === null) {
                $found[] = self::change(
                    ChangeCode::WindowWithdrawn,
                    $build,
                    $new,
                    'has lost the window that began '.self::at($window->from),
                );
            }
        }

        return $found;
    }

    /** @return list<Change> */
    private function ofWindow(?SigningWindow $old, SigningWindow $new, Build $build, Package $package): array
    {
        $say = static fn (ChangeCode $code, string $words): array => [self::change($code, $build, $package, $words)];
        $over = $new->hasEndedBy($this->moment);

        return match (true) {
            $old === null => $new->startsAfter($this->moment)
                ? $say(ChangeCode::OpeningAnnounced, 'is to be signed from '.self::at($new->from))
                : ($over ? [] : $say(ChangeCode::WindowOpened, 'is signed since '.self::at($new->from))),
            $old->until?->getTimestamp() === $new->until?->getTimestamp() => [],
            $new->until === null => $say(
                ChangeCode::EndWithdrawn,
                'stays signed: the end that was announced is withdrawn',
            ),
            $over => $say(ChangeCode::WindowClosed, 'is not signed any more, since '.self::at($new->until)),
            $old->until === null => $say(ChangeCode::EndAnnounced, 'will stop being signed '.self::at($new->until)),
            default => $say(
                ChangeCode::EndMoved,
                'will stop being signed '.self::at($new->until).', not '.self::at($old->until),
            ),
        };
    }

    private static function windowFrom(Package $package, \DateTimeImmutable $from): ?SigningWindow
    {
        foreach ($package->windows as $window) {
            if ($window->from->getTimestamp() === $from->getTimestamp()) {
                return $window;
            }
        }

        return null;
    }

    /** @return array<mixed> */
    private static function rules(Build $b): array
    {
        return [
            $b->channel, $b->rollbackIndex, $b->radioLevel, $b->eraseInstall,
            (string) $b->hostAgentMinimum, (string) $b->inPlaceFrom, (string) $b->stepDownFrom, $b->storeSchemas,
        ];
    }

    /** @param  Package|null  $package  null where it is about every package of the build */
    private static function change(ChangeCode $code, Build $build, ?Package $package, string $words): Change
    {
        $ids =
            $package === null
                ? array_merge(...array_map(static fn (Package $p): array => $p->hardwareIds, $build->packages))
                : $package->hardwareIds;
        $for = $package === null ? '' : ' for '.implode(', ', $package->hardwareIds);

        return new Change(
            $code,
            $build->osLine,
            (string) $build->version,
            $build->build,
            array_values(array_unique($ids)),
            "{$build->version->label()} ({$build->build}){$for} {$words}.",
        );
    }

    private static function at(\DateTimeImmutable $time): string
    {
        return Rfc3339::format($time);
    }
}
