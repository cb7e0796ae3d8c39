<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Bag\Passphrase;

/** A passphrase, typed twice where it is a new one. */
final class PassphraseRequest extends ActRequest
{
    use TakesPassphrases;

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
        return $this->freshIn('passphrase') ?? self::wanted();
    }

    /** Of a bag that is closed already: whatever it was closed with. */
    public function existing(): Passphrase
    {
        return $this->existingIn('passphrase') ?? self::wanted();
    }

    private static function wanted(): never
    {
        throw new \LogicException('The rules let no request without a passphrase through.');
    }
}
