<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * The chance that was told of a window, and whether it then held.
 *
 * @property int $id
 * @property string $vendor
 * @property string $os_line
 * @property string $version
 * @property string $build
 * @property string $package_sha256
 * @property \Illuminate\Support\Carbon $told_at
 * @property int $days ahead that it was told for
 * @property float $chance 0 to 1
 * @property int $closings that it rested on
 * @property \Illuminate\Support\Carbon $due_at
 * @property bool|null $held null where it is not known yet
 * @property \Illuminate\Support\Carbon|null $judged_at
 */
final class ToldForecast extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected function casts(): array
    {
        return [
            'told_at' => 'datetime',
            'due_at' => 'datetime',
            'judged_at' => 'datetime',
            'held' => 'boolean',
            'chance' => 'float',
            'days' => 'integer',
            'closings' => 'integer',
        ];
    }
}
