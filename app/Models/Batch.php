<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsFields;
use App\Models\Casts\AsValue;
use App\Models\Casts\AsValues;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use JadeStep\Core\Batch\NotedChange;
use JadeStep\Core\Batch\ScheduleGist;
use JadeStep\Core\Batch\ShopPlan;
use JadeStep\Core\Exchange\Fields;

/**
 * Devices that are to be done by a deadline in one workshop, and the schedule that was last made of them.
 *
 * @property int $id
 * @property string $name
 * @property \Illuminate\Support\Carbon $starts_at
 * @property \Illuminate\Support\Carbon|null $deadline
 * @property ShopPlan $workshop
 * @property string $made_by
 * @property Fields|null $schedule a `jade-step/schedule` document; null where none was made yet
 * @property ScheduleGist|null $gist what the next schedule is held against
 * @property list<NotedChange> $changes what was different when it was made again, the latest first
 * @property string|null $made_from a digest of what the schedule was made from; null where people changed it since
 * @property \Illuminate\Support\Carbon|null $made_at when the schedule was
 * @property \Illuminate\Support\Carbon|null $ended_at
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, BenchJob> $jobs
 */
final class Batch extends Model
{
    protected $guarded = ['id'];

    protected $attributes = ['changes' => '[]'];

    protected function casts(): array
    {
        return [
            'starts_at' => 'datetime',
            'deadline' => 'datetime',
            'workshop' => AsValue::class.':'.ShopPlan::class,
            'schedule' => AsFields::class,
            'gist' => AsValue::class.':'.ScheduleGist::class,
            'changes' => AsValues::class.':'.NotedChange::class,
            'made_at' => 'datetime',
            'ended_at' => 'datetime',
        ];
    }

    /** @return HasMany<BenchJob, $this> in the order in which they were opened */
    public function jobs(): HasMany
    {
        return $this->hasMany(BenchJob::class)->orderBy('id');
    }

    /** @return Builder<self> */
    public static function open(): Builder
    {
        return self::query()->where('ended_at', null);
    }
}
