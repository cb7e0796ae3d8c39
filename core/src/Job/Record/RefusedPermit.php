<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Time\Rfc3339;

/** That the vendor gave no permit for a build on this device, and why. */
final readonly class RefusedPermit implements Kept
{
    public function __construct(
        public string $build,
        public string $reason,
        public string $words,
        public \DateTimeImmutable $at,
    ) {
    }

    public function stopped(Route $route): bool
    {
        return array_filter($route->legs, fn (Leg $l): bool => $l->to->build === $this->build) !== [];
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->string('build'),
            $fields->string('reason'),
            $fields->string('words'),
            $fields->time('at'),
        );
    }

    public function fields(): array
    {
        return [
            'build' => $this->build,
            'reason' => $this->reason,
            'words' => $this->words,
            'at' => Rfc3339::format($this->at),
        ];
    }
}
