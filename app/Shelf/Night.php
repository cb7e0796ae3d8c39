<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\NightlyKey;
use App\Facts\PassphraseLocker;
use App\Ledger\StepLedger;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\People\People;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Refusal\Refusal;
use App\Rounds\Round;
use App\Shop\Shop;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\KeepRules;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\BackupChoice;
use JadeStep\Core\Route\PlannedBackup;
use Psr\Clock\ClockInterface;

/**
 * What the bench does by itself: at night it backs up what is plugged in, or near by air with its owner's consent, and
 * is paired and held by no job, plain or closed with the passphrase or for the key that a lead has chosen; it thins the
 * unsealed backups of its own by the keep rules, and reads old bags back again. Sealed copies whose date is past go at
 * any hour, where a lead has said so. Runs in the workers.
 */
final readonly class Night implements Round
{
    private const ONCE_IN_HOURS = 18;

    public function __construct(
        private DeviceLink $link,
        private StepLedger $ledger,
        private Shelf $shelf,
        private Verifying $verifying,
        private Importing $importing,
        private DueBags $due,
        private PassphraseLocker $locker,
        private People $people,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return 20;
    }

    public function look(): void
    {
        $this->verifying->remind();
        $this->importing->remind();
        $this->people->forgetRemoved();
        $keeping = Keeping::read();
        if ($keeping->deleteDue) {
            $this->due->deleteByRule();
        }
        if ($keeping->nightly && $keeping->isNight(Shop::read()->hour($this->clock->now()))) {
            $this->backUp();
            $this->thin($keeping);
            $this->readBack($keeping);
        }
    }

    public function backUp(): void
    {
        $keeping = Keeping::read();
        try {
            $ports = $this->link->ports();
        } catch (LinkLost) {
            return;
        }
        $since = $this->clock->now()->modify('-'.self::ONCE_IN_HOURS.' hours');
        foreach ($ports as $port) {
            $held = $port->serial === null || BenchJob::query()->where('held_serial', $port->serial)->exists();
            $recent = BenchJob::query()
                ->where('serial', $port->serial)
                ->where('nightly', true)
                ->where('created_at', '>', $since)
                ->exists();
            $agreed = ! $port->byAir || NearDevices::agreed((string) $port->serial) !== null;
            if (! $held && ! $recent && $agreed && $port->mode === DeviceMode::Normal) {
                $this->open((string) $port->serial, $keeping);
            }
        }
    }

    /**
     * Sealed ones, those of jobs, imported ones and what an open job rests on are never touched; nor the latest of a
     * device.
     */
    public function thin(Keeping $keeping): void
    {
        $own = Bag::query()->where('source', 'schedule')->where('state', BagState::Verified)->get()->groupBy('serial');
        foreach ($own as $bags) {
            $taken = [];
            foreach ($bags as $bag) {
                $taken[$bag->id] = $bag->taken_at->toDateTimeImmutable();
            }
            foreach ((new KeepRules($keeping->daily, $keeping->weekly))->expired($taken) as $id) {
                try {
                    $reason = "Kept are {$keeping->daily} days and {$keeping->weekly} weeks.";
                    $this->shelf->delete($bags->firstOrFail('id', $id), null, $reason);
                } catch (Refusal) {
                    // an open job wants it: the next night asks again
                }
            }
        }
    }

    /** All that are due of one device together, so that what they share is read once. */
    private function readBack(Keeping $keeping): void
    {
        $old = $this->clock->now()->modify("-{$keeping->verifyEveryDays} days");
        $due = Bag::query()->where('check_state', null)->where('verified_at', '<', $old)->oldest('verified_at');
        $serial = (clone $due)->first()?->serial;
        foreach ($serial === null ? [] : $due->where('serial', $serial)->get() as $bag) {
            try {
                $this->shelf->verifyAgain($bag);
            } catch (Refusal) {
                // another worker was quicker
            }
        }
    }

    private function open(string $serial, Keeping $keeping): void
    {
        $passphrase = $keeping->encrypted && NightlyKey::read() === null ? NightlyPassphrase::read() : null;
        if ($keeping->encrypted && $passphrase === null && NightlyKey::read() === null) {
            return; // never in the clear what was to be closed: Settings say that the passphrase is wanted
        }
        try {
            if (! $this->link->read($serial)->isPaired()) {
                return;
            }
            DB::transaction(function () use ($serial, $passphrase, $keeping): void {
                $lead = User::query()->where('role', 'lead')->oldest('id')->firstOrFail();
                $job = BenchJob::query()->create([
                    'serial' => $serial,
                    'held_serial' => $serial,
                    'state' => JobState::Open,
                    'opened_by' => $lead->id,
                    'intent' => Intent::BackUpOnly,
                    'nightly' => true,
                    'backup' => $keeping->encrypted ? new BackupChoice(PlannedBackup::Encrypted, [], null) : null,
                ]);
                if ($passphrase !== null) {
                    $this->locker->put($job, $passphrase);
                }
                $this->ledger->begin($job);
            });
        } catch (LinkLost|Declined|UniqueConstraintViolationException) {
            // it is gone, or another worker was quicker
        }
    }
}
