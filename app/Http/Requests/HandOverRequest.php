<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;

final class HandOverRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['accept' => ['nullable', 'array'], 'accept.*' => [Rule::enum(Kind::class)]];
    }
}
