<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Bag\Exception\WeakPassphrase;
use JadeStep\Core\Bag\Passphrase;

/** A look into bags, with the passphrases of those that are encrypted. They never go back out, nor into a message. */
final class LookRequest extends ActRequest
{
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
        $text = $this->fields()->maybeString($field) ?? '';
        try {
            return $text === '' ? null : Passphrase::existing($text);
        } catch (WeakPassphrase $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }
}
