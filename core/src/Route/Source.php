<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

enum Source: string
{
    case Device = 'device';
    case Base = 'base';
    case Sync = 'sync';
    case SideExport = 'side-export';
}
