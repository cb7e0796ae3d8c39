<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Shelf\Keeping;
use Illuminate\Validation\ValidationException;
use JadeStep\Core\Bag\Exception\UnusableKey;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\PublicKey;

final class KeepingRequest extends ActRequest
{
    use TakesPassphrases;

    public function rules(): array
    {
        return [
            'nightly' => ['required', 'boolean:strict'],
            'fromHour' => ['required', 'integer:strict', 'between:0,23'],
            'untilHour' => ['required', 'integer:strict', 'between:0,23'],
            'daily' => ['required', 'integer:strict', 'between:1,365'],
            'weekly' => ['required', 'integer:strict', 'between:0,520'],
            'verifyEveryDays' => ['required', 'integer:strict', 'between:1,365'],
            'sealedDays' => ['required', 'integer:strict', 'between:1,3650'],
            'encrypted' => ['sometimes', 'boolean:strict'],
            'deleteDue' => ['sometimes', 'boolean:strict'],
            'shareAtMost' => ['sometimes', 'integer:strict', 'between:1,64'],
            'passphrase' => ['nullable', 'string', 'max:1000'],
            'publicKey' => ['nullable', 'string', 'max:100000'],
        ];
    }

    public function keeping(): Keeping
    {
        return Keeping::of($this->fields());
    }

    /** @return Passphrase|null a new one for the nights; null where the held one stays */
    public function passphrase(): ?Passphrase
    {
        return $this->freshIn('passphrase');
    }

    /** @return PublicKey|null one that the nights are closed for from now on; null where none is given */
    public function publicKey(): ?PublicKey
    {
        $text = $this->fields()->maybeString('publicKey') ?? '';
        try {
            return $text === '' ? null : PublicKey::parse($text, config()->string('jade.gnupg'));
        } catch (UnusableKey $e) {
            throw ValidationException::withMessages(['publicKey' => $e->getMessage()]);
        }
    }
}
