<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;

/** What would end the loss of a kind, while the data is still on the device. */
enum Remedy: string
{
    case WriteOut = 'write-out';
    case Encrypt = 'encrypt';
    case Sync = 'sync';

    /**
     * @param  list<Kind>  $written  kinds that are written out already
     * @return list<self> the easiest first
     */
    public static function of(Kind $kind, PlannedBackup $backup, array $written): array
    {
        return array_values(array_filter(
            self::cases(),
            static fn (self $r): bool => match ($r) {
                self::WriteOut => $kind->hasSideExport() && ! in_array($kind, $written, true),
                self::Encrypt => $kind->onlyInEncryptedBag() && $backup !== PlannedBackup::Encrypted,
                self::Sync => $kind->canSync(),
            },
        ));
    }

    /** As half a sentence, after the name of the kind. */
    public function label(Kind $kind): string
    {
        return match ($this) {
            self::WriteOut => "write {$kind->label()} out",
            self::Encrypt => 'take the backup encrypted',
            self::Sync => "sync {$kind->label()} on the device",
        };
    }
}
