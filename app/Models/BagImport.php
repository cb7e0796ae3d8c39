<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A bag that was brought from outside: on its way, on the shelf, or refused.
 *
 * @property int $id
 * @property string $name
 * @property string $path
 * @property string $state queued, running, done or refused
 * @property float|null $progress
 * @property string|null $bag_id
 * @property array{code: string, detail: string}|null $problem
 * @property string $brought_by
 * @property \Illuminate\Support\Carbon $created_at
 */
final class BagImport extends Model
{
    protected $fillable = ['name', 'path', 'state', 'progress', 'bag_id', 'problem', 'brought_by'];

    protected function casts(): array
    {
        return ['progress' => 'float', 'problem' => 'array'];
    }
}
