<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Bag\Exception\WeakPassphrase;
use JadeStep\Core\Bag\Passphrase;

/** Reads passphrases out of a request. They never go back out, nor into a message. */
trait TakesPassphrases
{
    /** Of a bag that is to be closed with it: strong enough. Null where none was typed. */
    private function freshIn(string $field): ?Passphrase
    {
        return $this->parsedIn($field, Passphrase::parse(...));
    }

    /** Of a bag that is closed already: whatever it was closed with. Null where none was typed. */
    private function existingIn(string $field): ?Passphrase
    {
        return $this->parsedIn($field, Passphrase::existing(...));
    }

    /** @param  callable(string): Passphrase  $as */
    private function parsedIn(string $field, callable $as): ?Passphrase
    {
        $text = $this->fields()->maybeString($field) ?? '';
        try {
            return $text === '' ? null : $as($text);
        } catch (WeakPassphrase $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }
}
