<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use App\People\GoodPassword;
use App\Ports\WeakPasswords;

/** A password that a person sets for themselves: with the one they have, or by a link that a lead gave. */
final class NewPasswordRequest extends ActRequest
{
    public function rules(): array
    {
        $person = $this->user();
        $known = $person instanceof User ? [(string) strtok($person->email, '@'), $person->name] : [];

        return [
            'current' => [$person instanceof User ? 'required' : 'prohibited', 'string', 'max:500'],
            'password' => ['required', 'string', new GoodPassword(app(WeakPasswords::class), $known)],
        ];
    }
}
