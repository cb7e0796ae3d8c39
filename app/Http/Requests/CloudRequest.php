<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;
use JadeStep\Core\Device\Kind;

/** What a person attests of the vendor's cloud; the situation document's schema judges times and versions. */
final class CloudRequest extends FormRequest
{
    private const TIME = 'regex:/\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ\z/';

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        $all = implode(',', array_map(static fn (Kind $k): string => $k->value, array_filter(Kind::cases(), static fn (Kind $k): bool => $k->inEncryptedBag())));
        $syncing = implode(',', array_map(static fn (Kind $k): string => $k->value, array_filter(Kind::cases(), static fn (Kind $k): bool => $k->canSync())));

        return [
            'backup' => ['nullable', 'array:takenAt,madeOn,kinds'],
            'backup.takenAt' => ['required_with:backup', 'string', self::TIME],
            'backup.madeOn' => ['required_with:backup', 'string', 'regex:/\A\d+\.\d+\.\d+(-[0-9a-z.-]+)?\z/'],
            'backup.kinds' => ['required_with:backup', 'array', 'min:1'],
            'backup.kinds.*' => ['string', 'distinct', "in:{$all}"],
            'syncs' => ['nullable', "array:{$syncing}"],
            'syncs.*' => ['string', self::TIME],
        ];
    }
}
