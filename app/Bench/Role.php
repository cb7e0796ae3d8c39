<?php

declare(strict_types=1);

namespace App\Bench;

enum Role: string
{
    case Viewer = 'viewer';
    case Technician = 'technician';
    case Lead = 'lead';

    public function mayAct(): bool
    {
        return match ($this) {
            self::Viewer => false,
            self::Technician, self::Lead => true,
        };
    }
}
