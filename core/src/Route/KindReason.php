<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** Why a kind does not come back from the base. */
enum KindReason: string
{
    case SchemaTooNew = 'schema-too-new';
    case NotInBase = 'not-in-base';
    case CloudNewer = 'cloud-newer';
    case EncryptedOnly = 'encrypted-only';
    case NeverCarried = 'never-carried';

    public function label(): string
    {
        return match ($this) {
            self::SchemaTooNew => 'its store is too new for that version',
            self::NotInBase => 'the backup does not hold it',
            self::CloudNewer => 'the cloud keeps the newer one',
            self::EncryptedOnly => 'only an encrypted backup carries it',
            self::NeverCarried => 'no backup carries it',
        };
    }
}
