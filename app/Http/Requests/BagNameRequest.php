<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class BagNameRequest extends ActRequest
{
    public function rules(): array
    {
        return ['name' => ['required', ...BagName::RULES]];
    }
}
