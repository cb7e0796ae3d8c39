<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class CrossLineRequest extends ActRequest
{
    public function rules(): array
    {
        return ['serial' => ['required', 'string', 'max:100']];
    }
}
