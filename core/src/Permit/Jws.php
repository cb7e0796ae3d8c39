<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

use Firebase\JWT\BeforeValidException;
use Firebase\JWT\ExpiredException;
use Firebase\JWT\JWT;
use JadeStep\Core\Exchange\Exception\DoubleKey;
use JadeStep\Core\Exchange\StrictJson;
use JadeStep\Core\Permit\Exception\PermitUnfit;
use JadeStep\Core\Permit\Exception\Untrusted;
use JadeStep\Core\Permit\Internal\Base64Url;

/**
 * Opens compact JWS texts (RFC 7515) signed with EdDSA by a key of the set. Reading is strict: what is written in
 * another form than the one canonical one, or asks for something that is not understood (`crit`), is refused.
 */
final class Jws
{
    /** Clocks may differ by so much. */
    public const SKEW_SECONDS = 60;

    private const LONGEST = 100_000_000;

    private const DEPTH = 32;

    /** The header members of RFC 7515 section 4.1 that are texts. */
    private const TEXTS = ['alg', 'kid', 'typ', 'cty', 'jku', 'x5u', 'x5t', 'x5t#S256'];

    /**
     * @param  \DateTimeImmutable  $now  what `exp`, `nbf` and `iat` are held against, where the payload has them
     * @return \stdClass the payload
     *
     * @throws Untrusted|PermitUnfit
     */
    public static function open(string $compact, KeySet $keys, \DateTimeImmutable $now): \stdClass
    {
        [$head, $payload] = self::parts($compact);
        self::assertHeadIsUnderstood($head);
        $kid = is_string($head->kid ?? null) ? $head->kid : throw Untrusted::form('it does not name its key');
        if (! array_key_exists($kid, $keys->keys())) {
            throw Untrusted::unknownKey($kid);
        }
        self::assertTimesAreNumbers($payload);
        self::verify($compact, $keys, $now);

        return $payload;
    }

    /** @return array{\stdClass, \stdClass} header and payload */
    private static function parts(string $compact): array
    {
        $parts = strlen($compact) > self::LONGEST ? [] : explode('.', $compact, 4);
        if (count($parts) !== 3) {
            throw Untrusted::form('it is not three parts with points between them');
        }
        [$head, $payload] = array_map(
            static fn (string $part): string => Base64Url::decode($part)
                ?? throw Untrusted::form('a part of it is not canonical base64url'),
            $parts,
        );

        return [self::object($head, 'header'), self::object($payload, 'payload')];
    }

    private static function object(string $json, string $which): \stdClass
    {
        try {
            $read = StrictJson::decode($json, self::DEPTH);
        } catch (\JsonException|DoubleKey $e) {
            throw Untrusted::form("its {$which} cannot be read: {$e->getMessage()}");
        }

        return $read instanceof \stdClass ? $read : throw Untrusted::form("its {$which} is not a JSON object");
    }

    private static function assertHeadIsUnderstood(\stdClass $head): void
    {
        foreach (self::TEXTS as $name) {
            if (property_exists($head, $name) && ! is_string($head->{$name})) {
                throw Untrusted::form("the header's {$name} is not a text");
            }
        }
        if (property_exists($head, 'jwk') && ! $head->jwk instanceof \stdClass) {
            throw Untrusted::form('the header\'s jwk is not an object');
        }
        if (property_exists($head, 'x5c') && ! self::isTexts($head->x5c)) {
            throw Untrusted::form('the header\'s x5c is not a list of texts');
        }
        if (property_exists($head, 'crit')) {
            throw Untrusted::form('it asks for something that is not understood here (crit)');
        }
        if (($head->alg ?? null) !== 'EdDSA') {
            throw Untrusted::form('it is not signed with EdDSA');
        }
    }

    private static function isTexts(mixed $list): bool
    {
        return is_array($list) && $list !== [] && array_filter($list, is_string(...)) === $list;
    }

    private static function assertTimesAreNumbers(\stdClass $payload): void
    {
        foreach (['exp', 'nbf', 'iat'] as $name) {
            $time = $payload->{$name} ?? null;
            // up to the year 9999, which every clock can hold
            if ($time !== null && ! ((is_int($time) || is_float($time)) && abs($time) <= 253_402_300_799)) {
                throw Untrusted::form("its {$name} is not a time");
            }
        }
    }

    private static function verify(string $compact, KeySet $keys, \DateTimeImmutable $now): void
    {
        [$clock, $leeway] = [JWT::$timestamp, JWT::$leeway];
        [JWT::$timestamp, JWT::$leeway] = [$now->getTimestamp(), self::SKEW_SECONDS];
        try {
            JWT::decode($compact, $keys->keys());
        } catch (ExpiredException) {
            throw PermitUnfit::expired();
        } catch (BeforeValidException $e) {
            throw Untrusted::signature('it is dated in the future; check the clocks', $e);
        } catch (\UnexpectedValueException|\LogicException|\SodiumException $e) {
            throw Untrusted::signature($e->getMessage(), $e);
        } finally {
            [JWT::$timestamp, JWT::$leeway] = [$clock, $leeway];
        }
    }
}
