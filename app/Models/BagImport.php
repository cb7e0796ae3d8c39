<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValue;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;

/**
 * A bag that was brought from outside: on its way, on the shelf, or refused.
 *
 * @property int $id
 * @property string $name
 * @property string $path
 * @property string $state queued, running, done or refused
 * @property float|null $progress
 * @property string|null $bag_id
 * @property Problem|null $problem
 * @property string $brought_by
 * @property \Illuminate\Support\Carbon $created_at
 * @property \Illuminate\Support\Carbon $updated_at
 */
final class BagImport extends Model
{
    protected $guarded = [];

    protected function casts(): array
    {
        return ['progress' => 'float', 'problem' => AsValue::class.':'.ProblemDocument::class];
    }
}
