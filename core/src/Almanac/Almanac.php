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
     * @param  array<string, list<Build>>  $builds  by OS line, highest first
     * @param  array<string, Catalogue>  $speakers  by OS line
     */
    private function __construct(
        public array $catalogues,
        private array $models,
        private array $builds,
        private array $speakers,
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
        [$models, $builds, $speakers] = [[], [], []];
        foreach ($held as $catalogue) {
            foreach ($catalogue->models as $model) {
                $models[$model->hardwareId] ??= $model;
                $speakers[$model->osLine] ??= $catalogue;
            }
            foreach ($catalogue->builds as $build) {
                $builds[$build->osLine][] = $build;
            }
        }
        foreach ($builds as &$line) {
            usort($line, static fn (Build $a, Build $b): int => $a->compareForList($b));
        }

        return new self(array_values($held), $models, $builds, $speakers);
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

    /** The catalogue that speaks for an OS line, or null where no vendor here has it. */
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
