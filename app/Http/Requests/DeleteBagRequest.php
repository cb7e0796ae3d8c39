<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class DeleteBagRequest extends ActRequest
{
    public function rules(): array
    {
        return ['reason' => ['nullable', 'string', 'max:500']];
    }
}
