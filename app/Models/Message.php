<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use JadeStep\Core\Watch\Alarm;

/**
 * Something that people are told of. It names no owner and no device's serial: a mail lies on other machines too.
 *
 * @property int $id
 * @property Alarm $alarm
 * @property string|null $open_key what it is about; null when it is over
 * @property string $subject
 * @property string $detail
 * @property string $path of the page where it is mended, behind `#`
 * @property \Illuminate\Support\Carbon $raised_at
 * @property \Illuminate\Support\Carbon|null $ended_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, Sending> $sendings
 */
final class Message extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected function casts(): array
    {
        return ['alarm' => Alarm::class, 'raised_at' => 'datetime', 'ended_at' => 'datetime'];
    }

    /** @return HasMany<Sending, $this> */
    public function sendings(): HasMany
    {
        return $this->hasMany(Sending::class);
    }
}
