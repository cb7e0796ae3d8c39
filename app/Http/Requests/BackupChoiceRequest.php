<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;
use JadeStep\Core\Device\Kind;

final class BackupChoiceRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        $exported = array_map(static fn (Kind $k): string => $k->value, array_filter(Kind::cases(), static fn (Kind $k): bool => $k->hasSideExport()));

        return ['encryption' => ['required', 'in:plain,encrypted'], 'sideExports' => ['present', 'array'], 'sideExports.*' => ['string', 'distinct', 'in:'.implode(',', $exported)]];
    }
}
