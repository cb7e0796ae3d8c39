<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Version\Version;

/** The held catalogues of all vendors together, one a vendor, indexed by model and OS line. */
final readonly class Almanac
{
    /**
     * @param  list<Catalogue>  $catalogues
     * @param  array<string, Model>  $models  by hardware id
     * @param  array<string, list<Build>>  $builds  by OS line, highest first; what several catalogues carry is one
     * @param  array<string, Catalogue>  $speakers  by OS line
     * @param  array<string, array<string, Catalogue>>  $carriers  by OS line and vendor
     */
    private function __construct(
        public array $catalogues,
        private array $models,
        private array $builds,
        private array $speakers,
        private array $carriers,
    ) {
    }

    /** Of two catalogues of one vendor the later issued counts. */
    public static function of(Catalogue ...$catalogues): self
    {
        $held = [];
        foreach ($catalogues as $catalogue) {
            $other = $held[$catalogue->vendorId] ?? null;
            if ($other === null || $other->issuedAt < $catalogue->issuedAt) {
                $held[$catalogue->vendorId] = $catalogue;
            }
        }
        [$models, $speakers, $carriers] = [[], [], []];
        foreach ($held as $catalogue) {
            foreach ($catalogue->models as $model) {
                $models[$model->hardwareId] ??= $model;
                $speakers[$model->osLine] ??= $catalogue;
            }
            foreach ($catalogue->builds as $build) {
                $carriers[$build->osLine][$catalogue->vendorId] = $catalogue;
            }
        }
        $builds = self::buildsOf(array_values($held));

        return new self(array_values($held), $models, $builds, $speakers, $carriers);
    }

    /**
     * One version and one label is one build, whoever carries it: with the packages of all, and by the rules of the
     * latest word on it.
     *
     * @param  list<Catalogue>  $catalogues
     * @return array<string, list<Build>>
     */
    private static function buildsOf(array $catalogues): array
    {
        usort($catalogues, static fn (Catalogue $a, Catalogue $b): int => $b->issuedAt <=> $a->issuedAt);
        $lines = [];
        foreach ($catalogues as $catalogue) {
            foreach ($catalogue->builds as $build) {
                $name = "{$build->version} {$build->build}";
                $known = $lines[$build->osLine][$name] ?? null;
                $lines[$build->osLine][$name] = $known === null ? $build : $known->withPackages($build->packages);
            }
        }

        return array_map(static function (array $line): array {
            usort($line, static fn (Build $a, Build $b): int => $a->compareForList($b));

            return $line;
        }, $lines);
    }

    public function model(string $hardwareId): ?Model
    {
        return $this->models[$hardwareId] ?? null;
    }

    /** @return list<Model> */
    public function models(): array
    {
        return array_values($this->models);
    }

    /** @return list<Model> the variants that one name on the box may stand for */
    public function modelsNamed(string $name): array
    {
        return array_values(
            array_filter($this->models, static fn (Model $m): bool => mb_strtolower($m->name) === mb_strtolower($name)),
        );
    }

    /** @return list<Catalogue> all that a plan for the line rests on: those that carry builds of it */
    public function cataloguesOf(string $osLine): array
    {
        return array_values($this->carriers[$osLine] ?? []);
    }

    /** The catalogue that names the models of an OS line, or null where no vendor here has it. */
    public function catalogueFor(string $osLine): ?Catalogue
    {
        return $this->speakers[$osLine] ?? null;
    }

    /** @return list<Build> every build of the line, highest first */
    public function builds(string $osLine): array
    {
        return $this->builds[$osLine] ?? [];
    }

    public function build(string $osLine, Version $version, string $label): ?Build
    {
        foreach ($this->builds($osLine) as $build) {
            if ($build->is($version, $label)) {
                return $build;
            }
        }

        return null;
    }
}
