<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;

final class HandOverRequest extends ActRequest
{
    public function rules(): array
    {
        return ['accept' => ['nullable', 'array'], 'accept.*' => [Rule::enum(Kind::class)]];
    }
}
