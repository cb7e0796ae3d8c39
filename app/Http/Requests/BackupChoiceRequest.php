<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\BackupChoice;

final class BackupChoiceRequest extends ActRequest
{
    public function rules(): array
    {
        $exported = array_filter(Kind::cases(), static fn (Kind $k): bool => $k->hasSideExport());
        $exported = array_column($exported, 'value');

        return [
            'encryption' => ['required', 'in:plain,encrypted'],
            'sideExports' => ['present', 'array'],
            'sideExports.*' => ['string', 'distinct', 'in:'.implode(',', $exported)],
            'name' => ['sometimes', 'nullable', ...BagNameRequest::NAME],
        ];
    }

    public function choice(): BackupChoice
    {
        return BackupChoice::ofFields($this->fields());
    }
}
