<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\User;
use App\People\AccessRules;
use App\People\Preferences;
use App\Shop\Shop;
use Illuminate\Http\Request;

/** @mixin User */
final class PersonResource extends Answer
{
    public function toArray(Request $request): array
    {
        $person = $this->resource;
        assert($person instanceof User);
        $role = $person->actingRole();

        return [
            'name' => $this->name,
            'email' => $this->email,
            'role' => $role->value,
            'mayAct' => $role->mayAct(),
            'leads' => $role->leads(),
            'secondFactor' => $this->second_factor_at !== null,
            'secondFactorDue' => app(AccessRules::class)->isDueFor($person),
            'preferences' => Preferences::of($person->preferences)->told(),
            'shop' => new ShopResource(Shop::read()),
        ];
    }
}
