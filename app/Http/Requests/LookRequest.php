<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Bag\Passphrase;

/** A look into bags, with the passphrases of those that are encrypted. */
final class LookRequest extends ActRequest
{
    use TakesPassphrases;

    public function rules(): array
    {
        return [
            'passphrase' => ['nullable', 'string', 'max:1000'],
            'otherPassphrase' => ['nullable', 'string', 'max:1000'],
            'kind' => ['nullable', 'string', 'max:60'],
            'find' => ['nullable', 'string', 'max:200'],
        ];
    }

    /** @param  string  $field  passphrase or otherPassphrase */
    public function passphrase(string $field): ?Passphrase
    {
        return $this->existingIn($field);
    }
}
