<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

use JadeStep\Core\Version\Version;

/** The held catalogues of all vendors together, one a vendor. */
final readonly class Almanac
{
    /** @param  list<Catalogue>  $catalogues */
    private function __construct(public array $catalogues)
    {
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

        return new self(array_values($held));
    }

    public function model(string $hardwareId): ?Model
    {
        foreach ($this->catalogues as $catalogue) {
            foreach ($catalogue->models as $model) {
                if ($model->hardwareId === $hardwareId) {
                    return $model;
                }
            }
        }

        return null;
    }

    /** @return list<Model> the variants that one name on the box may stand for */
    public function modelsNamed(string $name): array
    {
        $found = [];
        foreach ($this->catalogues as $catalogue) {
            foreach ($catalogue->models as $model) {
                if (mb_strtolower($model->name) === mb_strtolower($name)) {
                    $found[] = $model;
                }
            }
        }

        return $found;
    }

    /** The catalogue that speaks for an OS line, or null where no vendor here has it. */
    public function catalogueFor(string $osLine): ?Catalogue
    {
        foreach ($this->catalogues as $catalogue) {
            foreach ($catalogue->models as $model) {
                if ($model->osLine === $osLine) {
                    return $catalogue;
                }
            }
        }

        return null;
    }

    /** @return list<Build> every build of the line, highest first */
    public function builds(string $osLine): array
    {
        $found = [];
        foreach ($this->catalogues as $catalogue) {
            foreach ($catalogue->builds as $build) {
                if ($build->osLine === $osLine) {
                    $found[] = $build;
                }
            }
        }
        usort($found, static fn (Build $a, Build $b): int => $b->compare($a) ?: strcmp($a->build, $b->build));

        return $found;
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
