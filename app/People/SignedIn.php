<?php

declare(strict_types=1);

namespace App\People;

/** One place where a person is signed in. */
final readonly class SignedIn
{
    /**
     * @param  string  $id  the digest of the session's own id, which would open it
     * @param  bool  $current  whether it is the one that asks
     */
    public function __construct(
        public string $id,
        public ?string $address,
        public string $browser,
        public \DateTimeImmutable $lastSeenAt,
        public bool $current,
    ) {
    }
}
