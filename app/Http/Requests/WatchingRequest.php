<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Watch\Alarm;

/** Of what somebody wants to be told, and how. */
final class WatchingRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'byMail' => ['present', 'array', 'max:40'],
            'byMail.*' => [Rule::enum(Alarm::class)],
            'handMinutes' => ['required', 'integer:strict', 'between:0,1440'],
            'inBrowser' => ['required', 'boolean:strict'],
        ];
    }
}
