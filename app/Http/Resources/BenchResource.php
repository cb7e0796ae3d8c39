<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Benches\Rates;
use App\Models\Bench;
use App\Ports\PortLabel;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @mixin Bench */
final class BenchResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $rates = app(Rates::class);

        return [
            'id' => $this->id, 'name' => $this->name, 'linkAddress' => $this->link_address, 'address' => $this->resource->address(), 'ports' => array_map(static fn (PortLabel $p): array => $p->fields(), $this->ports),
            'measured' => (object) $rates->of($this->id), 'measurements' => $rates->counts($this->id),
        ];
    }
}
