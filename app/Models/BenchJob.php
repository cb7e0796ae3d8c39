<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValue;
use App\Models\Casts\AsValues;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Difference;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Said;
use JadeStep\Core\Exchange\CheckDocument;
use JadeStep\Core\Exchange\ChosenReturnDocument;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\PromiseDocument;
use JadeStep\Core\Exchange\ProofDocument;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Forecast\ToldChance;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\AboutDevice;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Job\Record\AcceptedPlan;
use JadeStep\Core\Job\Record\AftercareRecord;
use JadeStep\Core\Job\Record\AlmanacFlag;
use JadeStep\Core\Job\Record\Attestations;
use JadeStep\Core\Job\Record\BackupChoice;
use JadeStep\Core\Job\Record\CloudWord;
use JadeStep\Core\Job\Record\ItemImport;
use JadeStep\Core\Job\Record\OverlayWord;
use JadeStep\Core\Job\Record\RefusedBase;
use JadeStep\Core\Job\Record\RefusedPermit;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\ChosenReturn;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Version\Version;

/**
 * One device's way, from Identify to Hand over: the facts of it. What follows from them, the core's Job works out.
 *
 * @property int $id
 * @property string $serial
 * @property string|null $held_serial
 * @property int $opened_by
 * @property int|null $batch_id that it is done in, with others by a deadline
 * @property int|null $bench_id where the device was last read
 * @property Intent $intent
 * @property bool $nightly whether the bench opened it by itself, to back up at night
 * @property JobState $state
 * @property Device|null $device as it was last read before the line
 * @property list<array<string, mixed>>|null $recovery_keys how this model is put in recovery mode by hand
 * @property string|null $form phone or tablet, as the almanac says
 * @property string|null $imei as the device tells it
 * @property Goal|null $goal
 * @property Plan|null $plan the last one made
 * @property Route|null $route the one that was taken
 * @property AcceptedLosses|null $accept
 * @property Attestations|null $attestations
 * @property int|null $catalogue_id
 * @property \Illuminate\Support\Carbon|null $line_crossed_at
 * @property string|null $line_crossed_by
 * @property list<Check> $checks of the accepted route, as last seen
 * @property list<Check> $line_checks as they were proven at the line
 * @property \Illuminate\Support\Carbon|null $install_begun_at when the device was first told to install
 * @property \Illuminate\Support\Carbon|null $erase_begun_at when it was first told to erase
 * @property JobProof|null $proof
 * @property ChosenReturn|null $return_choice how data is put back, where it is otherwise than the route says
 * @property bool $return_held whether the device is looked at first
 * @property Promise|null $standing_promise the one that stood when the data left the device
 * @property list<RefusedBase> $refused_bases what the device said no to
 * @property list<RefusedPermit> $refused_permits what the vendor gave no permit for
 * @property list<OverlayWord> $overlays people's word for what comes back over the base
 * @property list<ItemImport> $imports items that are put back one by one
 * @property int $restorable how many missing items some bag has, counted when the proof was made
 * @property AftercareRecord|null $aftercare
 * @property list<string>|null $losses what the job ended without, in words
 * @property string|null $end_reason
 * @property string|null $ended_by
 * @property Said|null $said what people said of the device before it was plugged in
 * @property list<Difference> $differences between that and what it told
 * @property AcceptedPlan|null $accepted
 * @property AlmanacFlag|null $flag what changed in the almanac since somebody looked
 * @property BackupChoice|null $backup
 * @property CloudWord|null $cloud
 * @property AboutDevice|null $about what people note of the device beside what it tells
 * @property list<ToldChance> $chances what is estimated of the windows that its routes need
 * @property string|null $variant what the almanac calls it: "Fenn 7 Atlantic"
 * @property string|null $box_contradiction what on its box does not fit it, in words
 * @property \Illuminate\Support\Carbon|null $link_lost_at
 * @property string|null $search_words what it is found by
 * @property \Illuminate\Support\Carbon|null $ended_at
 * @property \Illuminate\Support\Carbon|null $forgotten_at when the owner of its device was forgotten
 * @property \Illuminate\Support\Carbon $created_at
 * @property \Illuminate\Support\Carbon $updated_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, JobStep> $steps
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Bag> $bags
 * @property-read \Illuminate\Database\Eloquent\Collection<int, self> $usesOfDevice
 * @property-read User $openedBy
 */
final class BenchJob extends Model
{
    protected $guarded = ['id'];

    protected $attributes = [
        'intent' => 'take-down',
        'state' => 'open',
        'return_held' => false,
        'nightly' => false,
        'restorable' => 0,
    ];

    private const SAID_OF_IT = ['device', 'variant', 'about', 'proof', 'losses', 'end_reason', 'ended_by'];

    /** What a job is found by is written down beside it when it changes. */
    protected static function booted(): void
    {
        self::saving(static function (self $job): void {
            if ($job->isDirty([...self::SAID_OF_IT, 'forgotten_at'])) {
                $job->search_words = $job->words();
            }
        });
    }

    /** Its number, device, versions, people and reasons. */
    private function words(): string
    {
        return implode(' ', [
            $this->exists ? $this->id : '',
            $this->serial,
            $this->device?->modelName,
            $this->variant,
            $this->device?->version,
            $this->proof?->afterVersion,
            User::query()->find($this->opened_by)?->name,
            $this->ended_by,
            $this->end_reason,
            $this->about?->holder,
            ...$this->losses ?? [],
        ]);
    }

    protected function casts(): array
    {
        return [
            'intent' => Intent::class,
            'state' => JobState::class,
            'nightly' => 'boolean',
            'return_held' => 'boolean',
            'losses' => 'array',
            'recovery_keys' => 'array',
            'device' => AsValue::class.':'.DeviceDocument::class,
            'goal' => AsValue::class.':'.GoalDocument::class,
            'plan' => AsValue::class.':'.PlanDocument::class,
            'route' => AsValue::class.':'.RouteDocument::class,
            'accept' => AsValue::class.':'.AcceptedLosses::class,
            'attestations' => AsValue::class.':'.Attestations::class,
            'checks' => AsValues::class.':'.CheckDocument::class,
            'line_checks' => AsValues::class.':'.CheckDocument::class,
            'proof' => AsValue::class.':'.ProofDocument::class,
            'return_choice' => AsValue::class.':'.ChosenReturnDocument::class,
            'standing_promise' => AsValue::class.':'.PromiseDocument::class,
            'refused_bases' => AsValues::class.':'.RefusedBase::class,
            'refused_permits' => AsValues::class.':'.RefusedPermit::class,
            'overlays' => AsValues::class.':'.OverlayWord::class,
            'imports' => AsValues::class.':'.ItemImport::class,
            'aftercare' => AsValue::class.':'.AftercareRecord::class,
            'said' => AsValue::class.':'.Said::class,
            'differences' => AsValues::class.':'.Difference::class,
            'accepted' => AsValue::class.':'.AcceptedPlan::class,
            'flag' => AsValue::class.':'.AlmanacFlag::class,
            'chances' => AsValues::class.':'.ToldChance::class,
            'backup' => AsValue::class.':'.BackupChoice::class,
            'cloud' => AsValue::class.':'.CloudWord::class,
            'about' => AsValue::class.':'.AboutDevice::class,
            'line_crossed_at' => 'datetime',
            'install_begun_at' => 'datetime',
            'erase_begun_at' => 'datetime',
            'link_lost_at' => 'datetime',
            'ended_at' => 'datetime',
            'forgotten_at' => 'datetime',
        ];
    }

    /** @return HasMany<JobStep, $this> */
    public function steps(): HasMany
    {
        return $this->hasMany(JobStep::class);
    }

    /** @return HasMany<Bag, $this> */
    public function bags(): HasMany
    {
        return $this->hasMany(Bag::class);
    }

    /** @return HasMany<self, $this> the jobs that have the same device now, or have written to it */
    public function usesOfDevice(): HasMany
    {
        return $this->hasMany(self::class, 'serial', 'serial')
            ->select(['id', 'serial'])
            ->where(
                static fn (Builder $q) => $q->whereNotNull('held_serial')
                    ->orWhereNotNull('install_begun_at')
                    ->orWhere(
                        static fn (Builder $r) => $r->where('intent', Intent::ReturnOnly)
                            ->where('state', '!=', JobState::Abandoned),
                    ),
            );
    }

    /** @return BelongsTo<User, $this> */
    public function openedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'opened_by');
    }

    /** @return Builder<self> */
    public static function open(): Builder
    {
        return self::query()->where('state', JobState::Open);
    }

    /**
     * @return list<self> all open ones with their steps and bags; within a transaction their rows are held until it
     *   ends
     */
    public static function openWithAll(bool $held = false): array
    {
        $query = self::open()->with('steps', 'bags');
        /** @var Collection<int, self> $jobs */
        $jobs = ($held ? $query->lockForUpdate() : $query)->get();

        return array_values($jobs->all());
    }

    /** Holds the job's row until the transaction ends, and reads it anew. */
    public function lock(): self
    {
        self::hold($this->id);

        return $this->refresh();
    }

    /** Holds a job's row until the transaction ends. */
    public static function hold(int $id): void
    {
        self::query()->whereKey($id)->lockForUpdate()->value('id');
    }

    /** The step of this code; of those of several legs the first that is not done, or the last. */
    public function step(StepCode $code, ?int $leg = null): JobStep
    {
        $steps = $this->steps()
            ->where('code', $code)
            ->when($leg !== null, static fn (Builder $q) => $q->where('leg', $leg))
            ->get();

        return $steps->first(static fn (JobStep $s): bool => $s->state !== StepState::Done)
            ?? $steps->last()
            ?? throw (new ModelNotFoundException)->setModel(JobStep::class);
    }

    public function encryption(): Encryption
    {
        return $this->backupChoice()->encryption();
    }

    public function backupChoice(): BackupChoice
    {
        return $this->backup ?? BackupChoice::usual();
    }

    /** @return list<Kind> the kinds that are to be written out before the erase line */
    public function exportsWanted(): array
    {
        return $this->backupChoice()->exportsWanted($this->return()?->promise, $this->device);
    }

    /** The device, which a step that works on it has read before. */
    public function readDevice(): Device
    {
        return $this->device ?? throw new \LogicException('The device of this job has not been read.');
    }

    /** What is estimated of the route that was taken, or of the best one of the plan; null where nothing is. */
    public function chance(): ?ToldChance
    {
        $route = $this->route ?? $this->plan->routes[0] ?? null;
        $of = array_filter($this->chances, static fn (ToldChance $c): bool => $c->route === $route?->id);

        return $this->install_begun_at === null ? array_values($of)[0] ?? null : null;
    }

    /** The route, which a step past Choose has. */
    public function takenRoute(): Route
    {
        return $this->route ?? throw new \LogicException('No route of this job has been taken.');
    }

    /** How its data comes back; null where nothing says so yet. */
    public function return(): ?TheReturn
    {
        return match (true) {
            $this->route !== null => TheReturn::of(
                $this->route,
                $this->return_choice,
                $this->standing_promise,
                $this->return_held,
            ),
            $this->return_choice !== null => TheReturn::chosenOnly($this->return_choice, $this->return_held),
            default => null,
        };
    }

    /**
     * @return list<Kind> of which a way back brings less than was promised, so that it has to be accepted by name;
     *   where nothing was promised by a route, those of which nothing comes
     */
    public function losesMoreWith(Promise $promise): array
    {
        return $this->intent->crosses() ? $this->return()?->losesMoreWith($promise) ?? [] : $promise->lost();
    }

    /** The bag that this job took itself and counts on: the latest whole one that is no lowered copy. */
    public function safetyBag(): ?Bag
    {
        return Bag::wholes()
            ->where('bench_job_id', $this->id)
            ->reorder()
            ->latest('created_at')
            ->latest('id')
            ->first();
    }

    /** The newest whole bag of this device that was made on a newer version than it runs. */
    public function keptFromNewer(): ?Bag
    {
        $runs = $this->device?->version;

        return $runs === null
            ? null
            : Bag::wholes()
                ->where('serial', $this->serial)
                ->reorder()
                ->latest('taken_at')
                ->get()
                ->first(
                    static fn (Bag $b): bool => $b->state->proven() && Version::parse($b->made_on)->isAbove($runs),
                );
    }

    /** The lowered copy that this job made last of a bag. */
    public function loweredCopy(string $of): ?Bag
    {
        return $this->bags()
            ->where('lowered_from', $of)
            ->where('state', '!=', BagState::Writing)
            ->reorder()
            ->latest('created_at')
            ->latest('id')
            ->first();
    }
}
