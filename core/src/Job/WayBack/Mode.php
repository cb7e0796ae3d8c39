<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** The ways back, by name. */
enum Mode: string
{
    case PutBack = 'put-back';
    case FromCloud = 'from-cloud';
    case KeepAsNew = 'keep-as-new';
    case PutNothingBack = 'put-nothing-back';
    /** The route keeps the data on the device, so that nothing has to come back. */
    case NeverLeft = 'never-left';

    public function label(): string
    {
        return match ($this) {
            self::PutBack => 'Put a backup back',
            self::FromCloud => 'Take it from the owner’s cloud',
            self::KeepAsNew => 'Keep the device as new, and bring chosen kinds in',
            self::PutNothingBack => 'Put nothing back',
            self::NeverLeft => 'The data stays on the device',
        };
    }
}
