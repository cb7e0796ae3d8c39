<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Job\Record\OverlayState;

final class OverlayRequest extends ActRequest
{
    public function rules(): array
    {
        return ['state' => ['required', Rule::enum(OverlayState::class)]];
    }
}
