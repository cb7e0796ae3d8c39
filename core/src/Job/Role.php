<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

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

    /** Whether this role decides on vendors and their keys. */
    public function leads(): bool
    {
        return match ($this) {
            self::Viewer, self::Technician => false,
            self::Lead => true,
        };
    }
}
