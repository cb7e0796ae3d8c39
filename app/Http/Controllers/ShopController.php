<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ShopRequest;
use App\Http\Resources\ShopResource;
use App\Journal\Journal;
use App\Shop\Shop;

/** Who the shop is, and how it tells times. */
final readonly class ShopController
{
    public function show(): ShopResource
    {
        return new ShopResource(Shop::read());
    }

    public function keep(ShopRequest $request, Journal $journal): ShopResource
    {
        $shop = $request->shop();
        $shop->keep($request->person(), $journal);

        return new ShopResource($shop);
    }
}
