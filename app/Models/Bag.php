<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsEnums;
use App\Models\Casts\AsValues;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\FaultDocument;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Version\Version;

/**
 * What is known of a bag on the shelf.
 *
 * @property string $id
 * @property int|null $bench_job_id
 * @property string $serial
 * @property BagState $state
 * @property string $label
 * @property \Illuminate\Support\Carbon $taken_at
 * @property string $made_on
 * @property string $declared_version
 * @property string|null $lowered_from
 * @property int|null $bytes of its payload
 * @property int|null $own_bytes what it adds on the disk beside what earlier bags have; null for all of it
 * @property int|null $items
 * @property array<string, int>|null $counts items by kind
 * @property list<Fault> $faults
 * @property \Illuminate\Support\Carbon|null $verified_at
 * @property \Illuminate\Support\Carbon|null $sealed_at
 * @property \Illuminate\Support\Carbon|null $shared_at since when its files may be another bag's too
 * @property \Illuminate\Support\Carbon|null $keep_until
 * @property Encryption $encryption
 * @property string|null $closed_for the fingerprint of the public key that it is closed for; null with a passphrase
 * @property string $source job, schedule or import
 * @property string|null $hardware_id
 * @property string|null $os_line
 * @property list<Kind> $kinds of which it holds items
 * @property array<string, int>|null $store_schemas
 * @property \Illuminate\Support\Carbon|null $passphrase_proven_at when the passphrase last opened this very bag
 * @property string|null $check_state queued or running, while it is verified again
 * @property float|null $check_progress 0 to 1
 * @property \Illuminate\Support\Carbon $created_at
 * @property \Illuminate\Support\Carbon $updated_at
 * @property \Illuminate\Support\Carbon|null $deleted_at
 * @property string|null $deleted_by
 * @property string|null $delete_reason
 */
final class Bag extends Model
{
    public const FAULTS_KEPT = 200;

    public $incrementing = false;

    protected $keyType = 'string';

    protected $guarded = [];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('created_at')->orderBy('id');
        });
        self::addGlobalScope('on-the-shelf', static function (Builder $q): void {
            $q->where('deleted_at', null);
        });
    }

    protected $attributes = ['encryption' => 'none', 'source' => 'job'];

    protected function casts(): array
    {
        return [
            'state' => BagState::class,
            'encryption' => Encryption::class,
            'counts' => 'array',
            'store_schemas' => 'array',
            'faults' => AsValues::class.':'.FaultDocument::class,
            'kinds' => AsEnums::class.':'.Kind::class,
            'check_progress' => 'float',
            'taken_at' => 'datetime',
            'verified_at' => 'datetime',
            'sealed_at' => 'datetime',
            'shared_at' => 'datetime',
            'keep_until' => 'datetime',
            'passphrase_proven_at' => 'datetime',
            'deleted_at' => 'datetime',
        ];
    }

    /** @return Builder<self> those that are no lowered copies */
    public static function originals(): Builder
    {
        return self::query()->where('lowered_from', null);
    }

    /**
     * What bags take on the disk: of each what no earlier one has, and of a lowered copy nothing, which shares its
     * payload with its original.
     *
     * @param  Builder<self>  $of
     */
    public static function bytesTaken(Builder $of): int
    {
        return intval($of->clone()->whereNull('lowered_from')->sum(DB::raw('COALESCE(own_bytes, bytes)')));
    }

    /** @return Builder<self> originals that are not being written */
    public static function wholes(): Builder
    {
        return self::originals()->where('state', '!=', BagState::Writing);
    }

    /**
     * A base brings only the kinds of which it holds items.
     *
     * @param  array<string, int>  $counts  items by kind
     * @return list<Kind>
     */
    public static function kindsOf(array $counts): array
    {
        $codes = array_map(strval(...), array_keys(array_filter($counts, static fn (int $items): bool => $items > 0)));

        return array_values(array_filter(array_map(Kind::tryFrom(...), $codes)));
    }

    public function isSealed(): bool
    {
        return $this->state === BagState::Sealed;
    }

    public function isEncrypted(): bool
    {
        return $this->encryption === Encryption::OpenPgp;
    }

    /**
     * A reading of every byte, or an opening, has found it altered.
     *
     * @param  list<Fault>  $faults
     */
    public function foundDamaged(array $faults): void
    {
        $this->update(['state' => BagState::Damaged, 'faults' => array_slice($faults, 0, self::FAULTS_KEPT)]);
    }

    /** As the planner knows it. */
    public function held(): HeldBackup
    {
        return new HeldBackup(
            $this->id,
            false,
            $this->taken_at->toDateTimeImmutable(),
            Version::parse($this->made_on),
            Version::parse($this->declared_version),
            $this->isEncrypted(),
            $this->passphrase_proven_at !== null,
            $this->state->proven(),
            $this->kinds,
            $this->store_schemas ?? [],
        );
    }
}
