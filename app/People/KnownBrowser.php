<?php

declare(strict_types=1);

namespace App\People;

/** A browser in which a person has signed in before, as its (encrypted) cookie tells. It opens nothing by itself. */
final readonly class KnownBrowser
{
    public const COOKIE = 'jade_step_browser';

    public const MINUTES = 259_200; // 180 days

    private function __construct(public int $person, public string $id)
    {
    }

    public static function fresh(int $person): self
    {
        return new self($person, bin2hex(random_bytes(16)));
    }

    public static function told(mixed $cookie): ?self
    {
        return is_string($cookie) && preg_match('/\A(\d{1,18})\.([0-9a-f]{32})\z/', $cookie, $m) === 1
            ? new self((int) $m[1], $m[2])
            : null;
    }

    public function cookie(): string
    {
        return "{$this->person}.{$this->id}";
    }
}
