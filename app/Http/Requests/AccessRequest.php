<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class AccessRequest extends ActRequest
{
    public function rules(): array
    {
        return ['leadsNeedSecondFactor' => ['required', 'boolean:strict']];
    }
}
