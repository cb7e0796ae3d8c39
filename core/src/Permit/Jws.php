<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

use Firebase\JWT\BeforeValidException;
use Firebase\JWT\ExpiredException;
use Firebase\JWT\JWT;
use JadeStep\Core\Permit\Exception\PermitUnfit;
use JadeStep\Core\Permit\Exception\Untrusted;

/** Opens compact JWS texts (RFC 7515) signed with EdDSA by a key of the set. */
final class Jws
{
    /**
     * @param  \DateTimeImmutable  $now  what `exp` and `nbf` are held against, where the payload has them
     * @return \stdClass the payload
     *
     * @throws Untrusted|PermitUnfit
     */
    public static function open(string $compact, KeySet $keys, \DateTimeImmutable $now): \stdClass
    {
        self::assertKeyIsKnown($compact, $keys);
        $before = JWT::$timestamp;
        JWT::$timestamp = $now->getTimestamp();
        try {
            return JWT::decode(trim($compact), $keys->keys());
        } catch (ExpiredException) {
            throw PermitUnfit::expired();
        } catch (BeforeValidException $e) {
            throw Untrusted::signature('it is dated in the future; check the clocks', $e);
        } catch (\UnexpectedValueException|\LogicException|\SodiumException $e) {
            throw Untrusted::signature($e->getMessage(), $e);
        } finally {
            JWT::$timestamp = $before;
        }
    }

    /** Tells a key that nobody has accepted from a signature that does not hold. */
    private static function assertKeyIsKnown(string $compact, KeySet $keys): void
    {
        $head = json_decode(
            (string) base64_decode(strtr(explode('.', trim($compact), 2)[0], '-_', '+/'), true),
            true,
            4,
        );
        $kid = is_array($head) ? $head['kid'] ?? null : null;
        if (is_string($kid) && ! array_key_exists($kid, $keys->keys())) {
            throw Untrusted::unknownKey($kid);
        }
    }
}
