<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Shop\Shop;
use Illuminate\Http\Request;

/** @mixin Shop */
final class ShopResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'name' => $this->name,
            'contact' => $this->contact,
            'logo' => $this->logo,
            'timeZone' => $this->timeZone,
            'dateForm' => $this->dateForm->value,
            'firstDay' => $this->firstDay,
        ];
    }
}
