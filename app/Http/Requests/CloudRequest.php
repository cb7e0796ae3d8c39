<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\CloudBackup;
use JadeStep\Core\Job\Record\CloudWord;
use JadeStep\Core\Time\Rfc3339;

/** What a person tells of the owner's cloud; the situation document's schema judges times and versions. */
final class CloudRequest extends ActRequest
{
    private const TIME = 'regex:/\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ\z/';

    public function rules(): array
    {
        $codes = static fn (callable $which): string => implode(
            ',',
            array_column(array_filter(Kind::cases(), $which), 'value'),
        );
        $carried = $codes(static fn (Kind $k): bool => $k->inEncryptedBag());
        $syncing = $codes(static fn (Kind $k): bool => $k->canSync());

        return [
            'backup' => ['nullable', 'array:takenAt,madeOn,kinds', 'min:1'],
            'backup.takenAt' => ['required_with:backup', 'string', self::TIME],
            'backup.madeOn' => ['required_with:backup', 'string', 'regex:/\A\d+\.\d+\.\d+(-[0-9a-z.-]+)?\z/'],
            'backup.kinds' => ['required_with:backup', 'array', 'min:1'],
            'backup.kinds.*' => ['string', 'distinct', "in:{$carried}"],
            'syncs' => ['nullable', "array:{$syncing}"],
            'syncs.*' => ['string', self::TIME],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['backup.min' => 'Say when the backup was taken, on which version, and which kinds it holds.'];
    }

    /** @return CloudWord|null null where it is taken back */
    public function word(\DateTimeImmutable $now): ?CloudWord
    {
        $backup = $this->fields()->maybeIn('backup');
        $syncs = array_map(
            static fn (string $t): \DateTimeImmutable => Rfc3339::parse($t),
            $this->fields()->texts('syncs'),
        );

        return $backup === null && $syncs === []
            ? null
            : new CloudWord(
                $backup === null ? null : CloudBackup::ofFields($backup),
                $syncs,
                $this->person()->name,
                $now,
            );
    }
}
