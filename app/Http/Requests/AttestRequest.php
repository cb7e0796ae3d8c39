<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Readiness\CheckCode;

final class AttestRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'codes' => ['required', 'array', 'list', 'min:1', 'max:20'],
            'codes.*' => ['required', Rule::enum(CheckCode::class), 'distinct'],
        ];
    }

    /** @return non-empty-list<CheckCode> */
    public function codes(): array
    {
        $codes = array_map(CheckCode::from(...), $this->fields()->strings('codes'));

        return $codes === [] ? throw new \LogicException('The rules want one at least.') : $codes;
    }
}
