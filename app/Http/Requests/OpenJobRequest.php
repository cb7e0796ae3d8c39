<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Record\BackupChoice;
use JadeStep\Core\Route\PlannedBackup;

final class OpenJobRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'serial' => ['required', 'string', 'max:100', 'regex:/\A[A-Za-z0-9._-]+\z/'],
            'intent' => ['sometimes', Rule::enum(Intent::class)],
            'encryption' => ['sometimes', Rule::in([PlannedBackup::Plain->value, PlannedBackup::Encrypted->value])],
            'name' => ['sometimes', 'nullable', ...BagNameRequest::NAME],
        ];
    }

    public function intent(): Intent
    {
        return Intent::from($this->fields()->maybeString('intent') ?? Intent::TakeDown->value);
    }

    /** @return BackupChoice|null null where nothing was said of the backup */
    public function backup(): ?BackupChoice
    {
        $encryption = $this->fields()->maybeString('encryption');
        $name = $this->fields()->maybeString('name');

        return $encryption === null && $name === null
            ? null
            : new BackupChoice(PlannedBackup::from($encryption ?? PlannedBackup::Plain->value), [], $name);
    }
}
