<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\Bench;
use App\Ports\PortLabel;

/** Where devices are plugged in, by what was last seen; looked up once in a request. */
final class Places
{
    /** @var array<string, Place>|null by serial */
    private ?array $bySerial = null;

    public function of(string $serial): ?Place
    {
        return ($this->bySerial ??= self::all())[$serial] ?? null;
    }

    /** @return array<string, Place> */
    private static function all(): array
    {
        $places = [];
        foreach (Bench::query()->get() as $bench) {
            $labels = array_combine(
                array_map(static fn (PortLabel $p): string => $p->port, $bench->ports),
                array_map(static fn (PortLabel $p): string => $p->label, $bench->ports),
            );
            foreach ($bench->seen as $seen) {
                if ($seen->serial !== null) {
                    $label = $labels[$seen->port] ?? '';
                    $places[$seen->serial] = new Place(
                        $bench->name, $seen->port, $label, $seen->byAir, $seen->mode, $seen->keysHeard,
                    );
                }
            }
        }

        return $places;
    }
}
