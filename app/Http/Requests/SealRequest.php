<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class SealRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'keepUntil' => ['required', 'string', 'regex:/\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ\z/'],
            'label' => ['nullable', ...BagNameRequest::NAME],
        ];
    }
}
