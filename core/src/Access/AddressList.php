<?php

declare(strict_types=1);

namespace JadeStep\Core\Access;

/**
 * Which addresses the product may ask. Whoever runs the server names them; who signs in cannot. An entry is a host or a
 * network (CIDR), with a port or for all its ports: `10.0.7.0/24:8932`, `links.example:443`, `[fd00::7]:8932`.
 */
final readonly class AddressList
{
    /** Networks that are nobody's public address (IANA's special-purpose registries, RFC 6890 and its successors). */
    private const NOT_PUBLIC = [
        '0.0.0.0/8', '10.0.0.0/8', '100.64.0.0/10', '127.0.0.0/8', '169.254.0.0/16', '172.16.0.0/12', '192.0.0.0/24',
        '192.0.2.0/24', '192.88.99.0/24', '192.168.0.0/16', '198.18.0.0/15', '198.51.100.0/24', '203.0.113.0/24',
        '224.0.0.0/4', '240.0.0.0/4', '::/128', '::1/128', '::ffff:0:0/96', '64:ff9b::/96', '64:ff9b:1::/48',
        '100::/64', '2001::/23', '2001:db8::/32', '2002::/16', 'fc00::/7', 'fe80::/10', 'ff00::/8',
    ];

    /** @param  list<string>  $entries */
    public function __construct(private array $entries)
    {
    }

    public static function ofText(string $text): self
    {
        $entries = preg_split('/[\s,]+/', trim($text), -1, PREG_SPLIT_NO_EMPTY);

        return new self($entries === false ? [] : $entries);
    }

    /** Whether host and port are on the list. */
    public function names(string $host, int $port): bool
    {
        foreach ($this->entries as $entry) {
            [$of, $only] = self::split($entry);
            if (($only === null || $only === $port) && self::covers($of, trim($host, '[]'))) {
                return true;
            }
        }

        return false;
    }

    public static function isPublic(string $ip): bool
    {
        foreach (self::NOT_PUBLIC as $network) {
            if (self::covers($network, $ip)) {
                return false;
            }
        }

        return filter_var($ip, FILTER_VALIDATE_IP) !== false;
    }

    /** @return array{string, int|null} host or network, and the port */
    private static function split(string $entry): array
    {
        // an address of version 6 that has a port stands in brackets
        if (preg_match('~\A\[([^\]]+)\](?::(\d+))?\z~', $entry, $m) === 1) {
            return [$m[1], isset($m[2]) ? (int) $m[2] : null];
        }
        $parts = explode(':', $entry);

        return count($parts) === 2 ? [$parts[0], (int) $parts[1]] : [$entry, null];
    }

    private static function covers(string $of, string $host): bool
    {
        $parts = explode('/', $of, 2);
        [$network, $bits] = [$parts[0], $parts[1] ?? null];
        $one = @inet_pton($network);
        $other = @inet_pton($host);
        if ($one === false || $other === false || strlen($one) !== strlen($other)) {
            return $bits === null && strcasecmp($of, $host) === 0;
        }
        $bits = $bits === null ? 8 * strlen($one) : (int) $bits;
        $whole = intdiv($bits, 8);
        $mask = 0xFF << 8 - $bits % 8 & 0xFF;

        return substr($one, 0, $whole) === substr($other, 0, $whole)
            && ($bits % 8 === 0 || (ord($one[$whole]) & $mask) === (ord($other[$whole]) & $mask));
    }
}
