<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;

/** Missing items that are to be put back, each with the bag that it is taken from. */
final class MissingRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'items' => ['required', 'array', 'min:1', 'max:2000'],
            'items.*.kind' => ['required', Rule::enum(Kind::class)],
            'items.*.path' => ['required', 'string', 'max:1024'],
            'items.*.bag' => ['required', 'string', 'max:80'],
        ];
    }

    /** @return array<string, string> the bag to take each from, by kind/path */
    public function items(): array
    {
        $items = [];
        $this->fields()->each('items', static function (Fields $i) use (&$items): void {
            $items["{$i->string('kind')}/{$i->string('path')}"] = $i->string('bag');
        });

        return $items;
    }
}
