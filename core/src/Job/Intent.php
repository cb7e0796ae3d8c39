<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** What a device was taken in for. */
enum Intent: string
{
    case TakeDown = 'take-down';
    case TakeUp = 'take-up';
    case BackUpOnly = 'back-up-only';
    case ReturnOnly = 'return-only';

    public function label(): string
    {
        return match ($this) {
            self::TakeDown => 'Take down',
            self::TakeUp => 'Take up',
            self::BackUpOnly => 'Back up only',
            self::ReturnOnly => 'Return only',
        };
    }

    /** @return list<Stage> */
    public function stages(): array
    {
        return match ($this) {
            self::TakeDown, self::TakeUp => Stage::cases(),
            self::BackUpOnly => [Stage::Identify, Stage::Safeguard, Stage::HandOver],
            self::ReturnOnly => [Stage::Identify, Stage::Return, Stage::HandOver],
        };
    }

    /** Whether a route is chosen and an erase line crossed on the way. */
    public function crosses(): bool
    {
        return match ($this) {
            self::TakeDown, self::TakeUp => true,
            self::BackUpOnly, self::ReturnOnly => false,
        };
    }
}
