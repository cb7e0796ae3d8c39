<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * That a kind of a bag was written out in open formats.
 *
 * @property string $bag_id
 * @property string $serial
 * @property string $kind
 * @property \Illuminate\Support\Carbon $taken_at when the bag was taken
 * @property string $exported_by
 */
final class SideExportRecord extends Model
{
    protected $table = 'side_exports';

    protected $fillable = ['bag_id', 'serial', 'kind', 'taken_at', 'exported_by'];

    protected function casts(): array
    {
        return ['taken_at' => 'datetime'];
    }
}
