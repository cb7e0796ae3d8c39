<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Bag\Exception\WeakPassphrase;
use JadeStep\Core\Bag\Passphrase;

/** A passphrase, typed twice where it is a new one. It never goes back out, nor into a message. */
final class PassphraseRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'passphrase' => ['required', 'string', 'max:200'],
            'again' => ['nullable', 'string', 'same:passphrase'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'again.same' => 'The two are not the same. Type the passphrase again, twice.',
            'passphrase.required' => 'Type the passphrase.',
        ];
    }

    public function passphrase(): Passphrase
    {
        try {
            return Passphrase::parse($this->fields()->string('passphrase'));
        } catch (WeakPassphrase $e) {
            throw ValidationException::withMessages(['passphrase' => $e->getMessage()]);
        }
    }
}
