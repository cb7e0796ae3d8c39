<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One line of the almanac's history.
 *
 * @property int $id
 * @property string $vendor
 * @property string $code
 * @property string $os_line
 * @property string|null $version
 * @property string|null $build
 * @property list<string> $hardware_ids
 * @property string $words
 * @property bool $vouched whether the catalogue that says so was signed
 * @property \Illuminate\Support\Carbon $noticed_at
 */
final class AlmanacChange extends Model
{
    protected $fillable = [
        'vendor',
        'code',
        'os_line',
        'version',
        'build',
        'hardware_ids',
        'words',
        'vouched',
        'noticed_at',
    ];

    protected function casts(): array
    {
        return ['hardware_ids' => 'array', 'vouched' => 'boolean', 'noticed_at' => 'datetime'];
    }
}
