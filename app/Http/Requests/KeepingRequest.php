<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Shelf\Keeping;

final class KeepingRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'nightly' => ['required', 'boolean:strict'],
            'fromHour' => ['required', 'integer:strict', 'between:0,23'],
            'untilHour' => ['required', 'integer:strict', 'between:0,23'],
            'daily' => ['required', 'integer:strict', 'between:1,365'],
            'weekly' => ['required', 'integer:strict', 'between:0,520'],
            'verifyEveryDays' => ['required', 'integer:strict', 'between:1,365'],
            'sealedDays' => ['required', 'integer:strict', 'between:1,3650'],
        ];
    }

    public function keeping(): Keeping
    {
        return Keeping::of($this->fields());
    }
}
