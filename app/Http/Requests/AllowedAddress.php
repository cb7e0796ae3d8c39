<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Ports\Http\AllowedAddresses;
use Illuminate\Contracts\Validation\ValidationRule;

/** An address that this server may ask. */
final readonly class AllowedAddress implements ValidationRule
{
    public function __construct(private AllowedAddresses $allowed)
    {
    }

    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        $why = is_string($value) ? $this->allowed->why($value) : 'An address is a text.';
        if ($why !== null) {
            $fail($why);
        }
    }
}
