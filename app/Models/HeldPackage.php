<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValue;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;

/**
 * A package in the cache, or on its way there. All jobs that need it share it.
 *
 * @property string $sha256
 * @property string $vendor
 * @property string $build
 * @property string $version
 * @property string $file_name
 * @property int $bytes
 * @property PackageState $state
 * @property int $bytes_done
 * @property float|null $bytes_per_second while it is fetched
 * @property string|null $source vendor or file
 * @property bool $ahead whether somebody had it fetched without a job
 * @property Problem|null $problem
 * @property \Illuminate\Support\Carbon $used_at when a job last wanted it
 * @property \Illuminate\Support\Carbon|null $checked_at when its digest was last compared
 * @property \Illuminate\Support\Carbon|null $updated_at
 */
final class HeldPackage extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'sha256';

    protected $keyType = 'string';

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'state' => PackageState::class,
            'ahead' => 'boolean',
            'problem' => AsValue::class.':'.ProblemDocument::class,
            'used_at' => 'datetime',
            'checked_at' => 'datetime',
        ];
    }
}
