<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Reading\ShelfPages;
use Illuminate\Validation\Rule;

/** Which bags of the shelf are asked for, and in which order. */
final class FindBagsRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'find' => ['nullable', 'string', 'max:200'],
            'sort' => ['nullable', 'string', Rule::in(array_keys(ShelfPages::ORDERS))],
            'up' => ['nullable', Rule::in(['0', '1'])],
            'after' => ['nullable', 'string', 'max:80'],
        ];
    }

    /** @return key-of<ShelfPages::ORDERS> */
    public function sort(): string
    {
        $asked = $this->fields()->maybeString('sort') ?? '';

        return isset(ShelfPages::ORDERS[$asked]) ? $asked : 'taken';
    }
}
