<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

enum Source: string
{
    case Device = 'device';
    case Base = 'base';
    case Sync = 'sync';
    case SideExport = 'side-export';

    public function label(): string
    {
        return match ($this) {
            self::Device => 'Device',
            self::Base => 'Backup',
            self::Sync => 'Sync',
            self::SideExport => 'Export',
        };
    }

    /** How a kind comes that is not in the backup itself; empty for what is. */
    public function way(): string
    {
        return match ($this) {
            self::Device, self::Base => '',
            self::Sync => 'by sync',
            self::SideExport => 'from the export',
        };
    }
}
