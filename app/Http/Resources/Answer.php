<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** What is told of one value, by the names that docs/openapi.yaml gives. */
abstract class Answer extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        throw new \LogicException(static::class.' does not say what is told.');
    }
}
