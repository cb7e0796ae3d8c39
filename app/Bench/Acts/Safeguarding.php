<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\Journal;
use App\Bench\PassphraseLocker;
use App\Bench\StepState;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;
use Random\Randomizer;

/** How the backup of a job is taken, the passphrase for it, and what is known of the vendor's cloud. */
final readonly class Safeguarding
{
    public function __construct(private PlanJob $plan, private Journal $journal, private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    /**
     * Before a route is taken, since it changes what comes back.
     *
     * @param  list<string>  $sideExports  kinds that are to be written out too
     */
    public function choose(BenchJob $job, string $encryption, array $sideExports): void
    {
        DB::transaction(function () use ($job, $encryption, $sideExports): void {
            $job->update(['backup' => ['encryption' => $encryption, 'sideExports' => $sideExports]]);
            $this->plan->for($job, $job->goal ?? throw Refusal::notNow('How to back up is chosen when the device has been read.'));
        });
    }

    /** Six words that nobody has used here. */
    public function offer(): string
    {
        return Passphrase::offered(new Randomizer)->reveal();
    }

    /** Takes the passphrase in, and lets the step go on that wants it. */
    public function passphrase(BenchJob $job, Passphrase $passphrase): void
    {
        $wanted = $job->steps()->where('state', StepState::NeedsHand->value)->get()->contains(static fn (JobStep $s): bool => ($s->problem['code'] ?? '') === 'passphrase-wanted');
        if ($job->encryption() === Encryption::None && ! $wanted) {
            throw Refusal::notNow('The backup of this job is not encrypted; no passphrase is wanted.');
        }
        DB::transaction(function () use ($job, $passphrase): void {
            $this->locker->put($job, $passphrase);
            foreach ($job->steps()->where('state', StepState::NeedsHand->value)->get() as $step) {
                ($step->problem['code'] ?? '') === 'passphrase-wanted' ? $this->journal->goOn($step) : null;
            }
        });
    }

    /**
     * A person's word for what the vendor's cloud holds. Null takes it back.
     *
     * @param  array{takenAt: string, madeOn: string, kinds: list<string>}|null  $backup
     * @param  array<string, string>  $syncs  when each kind last synced, by code
     */
    public function cloud(BenchJob $job, ?array $backup, array $syncs, User $by): void
    {
        DB::transaction(function () use ($job, $backup, $syncs, $by): void {
            $job->update(['cloud' => $backup === null && $syncs === [] ? null : ['backup' => $backup, 'syncs' => $syncs, 'by' => $by->name, 'at' => Rfc3339::format($this->clock->now())]]);
            $job->route === null ? $this->plan->for($job, $job->goal ?? throw Refusal::notNow('The cloud is attested when the device has been read.')) : null;
        });
    }
}
