<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Job\Phase;

/**
 * What a step is just doing.
 *
 * @implements CastsAttributes<Phase, Phase>
 */
final class AsPhase implements CastsAttributes
{
    public function get(Model $model, string $key, mixed $value, array $attributes): ?Phase
    {
        return is_string($value) ? Phase::read($value) : null;
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return $value instanceof Phase ? $value->kept() : null;
    }
}
