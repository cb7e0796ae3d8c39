<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Device\Kind;

/** Which kinds are to be written out; the passphrase where the bag is encrypted. */
final class SideExportRequest extends ActRequest
{
    use TakesPassphrases;

    public function rules(): array
    {
        $exported = array_map(
            static fn (Kind $k): string => $k->value,
            array_filter(Kind::cases(), static fn (Kind $k): bool => $k->hasSideExport()),
        );

        return [
            'kinds' => ['required', 'array', 'min:1'],
            'kinds.*' => ['string', 'distinct', 'in:'.implode(',', $exported)],
            'passphrase' => ['nullable', 'string', 'max:1000'],
        ];
    }

    /** @return list<Kind> */
    public function kinds(): array
    {
        return $this->fields()->enums('kinds', Kind::class);
    }

    public function passphrase(): ?Passphrase
    {
        return $this->existingIn('passphrase');
    }
}
