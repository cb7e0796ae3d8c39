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
}
