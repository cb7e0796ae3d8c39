<?php

declare(strict_types=1);

namespace App\Reading;

use App\Batches\PortsOfBatch;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Refusal\Refusal;
use JadeStep\Core\Batch\Turn;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\OrderCalendar;
use JadeStep\Core\Job\StepCode;
use Psr\Clock\ClockInterface;

/** What one technician does when, by the schedule that was last made. */
final readonly class OrderOfTheDay
{
    public function __construct(private PortsOfBatch $ports, private ClockInterface $clock)
    {
    }

    /** @param  int  $technician  from 1 */
    public function calendar(Batch $batch, int $technician): string
    {
        $name = $batch->workshop->technicians[$technician - 1]
            ?? throw Refusal::notNow("The batch has no technician {$technician}.");
        if ($batch->made_at === null || $batch->schedule === null) {
            throw Refusal::notNow('The schedule is being made. Ask again in a moment.');
        }
        $serials = $batch->jobs->mapWithKeys(static fn (BenchJob $j): array => [$j->id => $j->serial])->all();
        $turns = [];
        foreach ($batch->schedule->each('devices', static fn (Fields $d): Fields => $d) as $device) {
            $serial = $serials[(int) $device->string('id')] ?? $device->string('id');
            foreach ($device->each('steps', static fn (Fields $s): Fields => $s) as $step) {
                if ($step->maybeInt('technician') === $technician) {
                    $turns[] = $this->turn($batch, $device, $step, $serial);
                }
            }
        }
        usort($turns, static fn (Turn $a, Turn $b): int => $a->from <=> $b->from);

        return OrderCalendar::of("{$batch->name}: {$name}", $turns, $this->clock->now());
    }

    private function turn(Batch $batch, Fields $device, Fields $step, string $serial): Turn
    {
        $code = StepCode::tryFrom($step->string('step'));
        $port = $device->maybeInt('port');

        return new Turn(
            "batch-{$batch->id}-{$device->string('id')}-{$step->string('step')}-{$step->int('leg')}",
            ($code?->title() ?? $step->string('step')).": {$device->string('label')}, {$serial}",
            $port === null ? '' : "Port {$this->ports->names($port)[$port - 1]}",
            $step->time('startsAt'),
            $step->time('endsAt'),
        );
    }
}
