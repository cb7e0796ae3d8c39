<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;

/** Missing items that are to be put back, each with the bag that it is taken from. */
final class MissingRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'items' => ['required', 'array', 'min:1', 'max:2000'],
            'items.*.kind' => ['required', Rule::enum(Kind::class)],
            'items.*.path' => ['required', 'string', 'max:1024'],
            'items.*.bag' => ['required', 'string', 'max:80'],
        ];
    }
}
