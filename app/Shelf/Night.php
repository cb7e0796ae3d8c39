<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Bench\BagState;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\KeepRules;
use Psr\Clock\ClockInterface;

/**
 * What the bench does by itself: at night it backs up plain what is plugged in and paired and held by no job, thins the
 * unsealed backups of its own by the keep rules, and reads old bags back again. Runs in the workers.
 */
final class Night
{
    private const EVERY_SECONDS = 20.0;

    private const ONCE_IN_HOURS = 18;

    private float $last = 0.0;

    public function __construct(private readonly DeviceLink $link, private readonly Journal $journal, private readonly BagStore $bags, private readonly Shelf $shelf, private readonly Verifying $verifying, private readonly ClockInterface $clock)
    {
    }

    public function look(): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        $this->verifying->remind();
        $keeping = Keeping::read();
        if ($keeping->nightly && $keeping->isNight((int) $this->clock->now()->format('G'))) {
            $this->backUp();
            $this->thin($keeping);
            $this->readBack($keeping);
        }
    }

    public function backUp(): void
    {
        try {
            $ports = $this->link->ports();
        } catch (LinkLost) {
            return;
        }
        $since = $this->clock->now()->modify('-'.self::ONCE_IN_HOURS.' hours');
        foreach ($ports as $port) {
            $held = $port->serial === null || BenchJob::query()->where('held_serial', $port->serial)->exists();
            $recent = BenchJob::query()->where('serial', $port->serial)->where('purpose', 'backup')->where('created_at', '>', $since)->exists();
            $held || $recent || $port->mode !== DeviceReading::NORMAL ? null : $this->open((string) $port->serial);
        }
    }

    /** Sealed ones, those of jobs, and imported ones are never touched; nor the latest of a device. */
    public function thin(Keeping $keeping): void
    {
        $own = Bag::query()->where('source', 'schedule')->where('state', BagState::Verified)->get()->groupBy('serial');
        foreach ($own as $bags) {
            $taken = [];
            foreach ($bags as $bag) {
                $taken[$bag->id] = $bag->taken_at->toDateTimeImmutable();
            }
            foreach ((new KeepRules($keeping->daily, $keeping->weekly))->expired($taken) as $id) {
                Bag::query()->whereKey($id)->update(['deleted_at' => $this->clock->now(), 'deleted_by' => 'keep rules', 'delete_reason' => "Kept are {$keeping->daily} days and {$keeping->weekly} weeks."]);
                $this->bags->remove($id);
            }
        }
    }

    private function readBack(Keeping $keeping): void
    {
        $old = $this->clock->now()->modify("-{$keeping->verifyEveryDays} days");
        $bag = Bag::query()->where('check_state', null)->where('verified_at', '<', $old)->oldest('verified_at')->first();
        try {
            $bag === null ?: $this->shelf->verifyAgain($bag);
        } catch (Refusal) {
            // another worker was quicker
        }
    }

    private function open(string $serial): void
    {
        try {
            if (! $this->link->read($serial)->paired) {
                return;
            }
            DB::transaction(function () use ($serial): void {
                $lead = User::query()->where('role', 'lead')->oldest('id')->firstOrFail();
                $job = BenchJob::query()->create(['serial' => $serial, 'held_serial' => $serial, 'state' => JobState::Open, 'opened_by' => $lead->id, 'purpose' => 'backup']);
                $this->journal->begin($job);
            });
        } catch (LinkLost|Refused|UniqueConstraintViolationException) {
            // it is gone, or another worker was quicker
        }
    }
}
