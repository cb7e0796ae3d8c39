<?php

declare(strict_types=1);

namespace App\Models;

use App\Bench\BagState;
use App\Bench\JobState;
use App\Bench\StepCode;
use App\Bench\StepState;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use JadeStep\Core\Bag\Encryption;

/**
 * One device's way down, from Identify to Hand over.
 *
 * @property int $id
 * @property string $serial
 * @property string|null $held_serial
 * @property int|null $bench_id where the device was last read
 * @property JobState $state
 * @property array<string, mixed>|null $device the device as it was last read before the line, as in a situation document
 * @property array<string, mixed>|null $goal
 * @property array<string, mixed>|null $plan the plan document last made
 * @property array<string, mixed>|null $route the accepted route of it
 * @property array{pairingLost: list<string>, appsUnavailable: list<string>}|null $accept
 * @property array<string, array{by: string, at: string}>|null $attestations by check code
 * @property int|null $catalogue_id
 * @property \Illuminate\Support\Carbon|null $line_crossed_at
 * @property string|null $line_crossed_by
 * @property list<array<string, string>>|null $line_checks
 * @property \Illuminate\Support\Carbon|null $install_begun_at when the device was first told to install: from then on there is only forward
 * @property \Illuminate\Support\Carbon|null $erase_begun_at when it was first told to erase: from then on the data is in the backups
 * @property array<string, mixed>|null $proof
 * @property array{mode: string, backup: string|null, kinds: list<string>, promise: list<array<string, mixed>>, losses: array<string, list<string>>, by: string, at: string}|null $return_choice how data is put back, where it is otherwise than the route says
 * @property list<array{backup: string, words: string, at: string}>|null $refused_bases what the device said no to
 * @property array<string, array{state: string, by: string, at: string}>|null $overlays people's word for kinds that come back over the base, by kind
 * @property list<array{kind: string, path: string, bag: string, sha256: string, state: string, detail: string}>|null $imports items that are put back one by one
 * @property array<string, mixed>|null $aftercare people's word by code, and the last reading
 * @property list<string>|null $losses what the job ended without, in words
 * @property string|null $end_reason
 * @property string|null $ended_by
 * @property array<string, mixed>|null $said what people said of the device before it was plugged in
 * @property list<array{field: string, name: string, said: string, read: string}>|null $differences between that and what it told
 * @property array<string, mixed>|null $accepted the plan as it was accepted, with the catalogue's issue
 * @property array{at: string, words: list<string>}|null $flag what changed in the almanac since somebody looked
 * @property string $purpose crossing, or backup for one that only backs up
 * @property array{encryption: string, sideExports: list<string>}|null $backup how the backup is taken
 * @property array<string, mixed>|null $cloud what was attested of the vendor's cloud
 * @property \Illuminate\Support\Carbon|null $link_lost_at
 * @property \Illuminate\Support\Carbon|null $ended_at
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, JobStep> $steps
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Bag> $bags
 * @property-read User $openedBy
 */
final class BenchJob extends Model
{
    protected $fillable = ['serial', 'held_serial', 'state', 'opened_by', 'device', 'goal', 'plan', 'route', 'accept', 'attestations',
        'catalogue_id', 'line_crossed_at', 'line_crossed_by', 'line_checks', 'proof', 'ended_at', 'said', 'differences', 'accepted', 'flag', 'purpose', 'backup', 'cloud', 'link_lost_at', 'bench_id', 'install_begun_at', 'erase_begun_at',
        'return_choice', 'refused_bases', 'overlays', 'imports', 'aftercare', 'losses', 'end_reason', 'ended_by'];

    protected $attributes = ['purpose' => 'crossing'];

    protected function casts(): array
    {
        return [
            'state' => JobState::class, 'device' => 'array', 'goal' => 'array', 'plan' => 'array', 'route' => 'array', 'accept' => 'array',
            'attestations' => 'array', 'said' => 'array', 'differences' => 'array', 'accepted' => 'array', 'flag' => 'array', 'backup' => 'array', 'cloud' => 'array', 'link_lost_at' => 'datetime', 'install_begun_at' => 'datetime', 'erase_begun_at' => 'datetime', 'line_checks' => 'array', 'proof' => 'array', 'return_choice' => 'array', 'refused_bases' => 'array', 'overlays' => 'array', 'imports' => 'array', 'aftercare' => 'array', 'losses' => 'array', 'line_crossed_at' => 'datetime', 'ended_at' => 'datetime',
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

    /** @return BelongsTo<User, $this> */
    public function openedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'opened_by');
    }

    /** The step of this code; of those of several legs the first that is not done, or the last. */
    public function step(StepCode $code, ?int $leg = null): JobStep
    {
        $steps = $this->steps()->where('code', $code->value)->get()->filter(static fn (JobStep $s): bool => $leg === null || $s->leg === $leg);

        return $steps->first(static fn (JobStep $s): bool => $s->state !== StepState::Done) ?? $steps->last() ?? throw (new ModelNotFoundException)->setModel(JobStep::class);
    }

    /**
     * A leg of the accepted route.
     *
     * @return array<string, mixed>
     */
    public function leg(int $leg): array
    {
        return $this->route['legs'][$leg] ?? throw new \LogicException("The route has no leg {$leg}.");
    }

    /** How the backup of this job is taken: plain until somebody says otherwise. */
    public function encryption(): Encryption
    {
        return ($this->backup['encryption'] ?? 'plain') === 'encrypted' ? Encryption::OpenPgp : Encryption::None;
    }

    public function isBackupOnly(): bool
    {
        return $this->purpose === 'backup';
    }

    /** The latest start of the accepted route, or of the best on offer, where it has one. */
    public function latestStart(): ?string
    {
        return $this->route['latestStart'] ?? ($this->route === null ? $this->plan['routes'][0]['latestStart'] ?? null : null);
    }

    /** The bag that this job took itself and counts on: the latest whole one that is no lowered copy. */
    public function safetyBag(): ?Bag
    {
        return $this->bags()->get()->last(static fn (Bag $b): bool => $b->lowered_from === null && $b->state !== BagState::Writing);
    }

    /** The lowered copy that this job made last, of a bag where one is named. */
    public function loweredCopy(?string $of = null): ?Bag
    {
        return $this->bags()->get()->last(static fn (Bag $b): bool => $b->lowered_from !== null && ($of === null || $b->lowered_from === $of));
    }
}
