<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\JobState;
use App\Http\Resources\JobSummaryResource;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\Exception\LinkLost;
use App\Ports\PortReading;
use Illuminate\Http\JsonResponse;

final class BenchController
{
    private const ENDED_SHOWN = 20;

    public function show(DeviceLink $link): JsonResponse
    {
        $open = BenchJob::query()->with('steps')->where('state', JobState::Open)->latest('id')->get();
        $ended = BenchJob::query()->with('steps')->where('state', '!=', JobState::Open)->latest('id')->limit(self::ENDED_SHOWN)->get();

        return new JsonResponse([
            ...$this->ports($link, $open->pluck('id', 'held_serial')->all()),
            'open' => JobSummaryResource::collection($open),
            'ended' => JobSummaryResource::collection($ended),
        ]);
    }

    /**
     * @param  array<string, int>  $held  job ids by serial
     * @return array{link: string, ports: list<array<string, mixed>>}
     */
    private function ports(DeviceLink $link, array $held): array
    {
        try {
            return ['link' => 'up', 'ports' => array_map(static fn (PortReading $p): array => [
                'port' => $p->port, 'serial' => $p->serial, 'modelName' => $p->modelName, 'version' => $p->version, 'mode' => $p->mode,
                'jobId' => $p->serial === null ? null : $held[$p->serial] ?? null,
            ], $link->ports())];
        } catch (LinkLost) {
            return ['link' => 'silent', 'ports' => []];
        }
    }
}
