<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Bench\TheReturn;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;

/** What is put back: a whole backup (or none), or chosen kinds on a device that is kept as new. */
final class ReturnRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'mode' => ['required', Rule::in([TheReturn::WHOLE, TheReturn::AS_NEW, TheReturn::HOLD])],
            'backup' => ['present', 'nullable', 'string', 'max:80'],
            'kinds' => ['nullable', 'array', 'max:20'],
            'kinds.*' => ['distinct', Rule::enum(Kind::class)],
        ];
    }
}
