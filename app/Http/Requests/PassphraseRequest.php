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
            'passphrase' => ['required', 'string', 'max:1000'],
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

    /** Of a bag that is to be closed with it: strong enough. */
    public function fresh(): Passphrase
    {
        return $this->parsed(Passphrase::parse(...));
    }

    /** Of a bag that is closed already: whatever it was closed with. */
    public function existing(): Passphrase
    {
        return $this->parsed(Passphrase::existing(...));
    }

    /** @param  callable(string): Passphrase  $as */
    private function parsed(callable $as): Passphrase
    {
        try {
            return $as($this->fields()->string('passphrase'));
        } catch (WeakPassphrase $e) {
            throw ValidationException::withMessages(['passphrase' => $e->getMessage()]);
        }
    }
}
