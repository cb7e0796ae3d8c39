<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class EvidenceRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'osLine' => ['required', 'string', 'max:64'],
            'from' => ['required', 'integer', 'min:0', 'max:9999'],
            'to' => ['required', 'integer', 'min:0', 'max:9999'],
        ];
    }
}
