<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Benches\Rates;
use App\Models\Bench;
use App\Ports\PortLabel;
use Illuminate\Http\Request;
use JadeStep\Core\Route\Rate;

/**
 * @mixin Bench
 *
 * @property-read Bench $resource
 */
final class BenchResource extends Answer
{
    public function toArray(Request $request): array
    {
        $rates = app(Rates::class);

        return [
            'id' => $this->id,
            'name' => $this->name,
            'linkAddress' => $this->link_address,
            'address' => $this->resource->address(),
            'ports' => array_map(static fn (PortLabel $p): array => $p->fields(), $this->ports),
            'measured' => (object) array_map(
                static fn (Rate $r): array => $r->points(),
                $rates->byField($this->id),
            ),
            'measurements' => $rates->counts($this->id),
        ];
    }
}
