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

    /** The one of two that may do less. */
    public static function lower(self $one, self $other): self
    {
        $order = array_flip(array_map(static fn (self $r): string => $r->value, self::cases()));

        return $order[$one->value] < $order[$other->value] ? $one : $other;
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
