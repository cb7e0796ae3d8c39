<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

use JadeStep\Core\Permit\Exception\PermitUnfit;
use JadeStep\Core\Permit\Exception\Untrusted;

/** The vendor's signed answer for one device, one build and one nonce. */
final readonly class Permit
{
    private function __construct(public string $compact, public \DateTimeImmutable $expiresAt)
    {
    }

    /**
     * Reads a permit and holds it against the install it was asked for.
     *
     * @throws Untrusted where it is not the vendor's
     * @throws PermitUnfit where it has run out or is for another install
     */
    public static function parse(string $compact, KeySet $keys, PermitRequest $for, \DateTimeImmutable $now): self
    {
        $claims = Jws::open($compact, $keys, $now);
        $expected = [
            'sub' => $for->deviceSerial, 'hardwareId' => $for->hardwareId, 'build' => $for->build,
            'packageSha256' => $for->packageSha256, 'nonce' => $for->nonce,
        ];
        foreach ($expected as $field => $value) {
            if (($claims->{$field} ?? null) !== $value) {
                throw PermitUnfit::field($field);
            }
        }
        if (! is_int($claims->exp ?? null)) {
            throw PermitUnfit::field('exp');
        }

        return new self($compact, (new \DateTimeImmutable('@'.$claims->exp))->setTimezone(new \DateTimeZone('UTC')));
    }
}
