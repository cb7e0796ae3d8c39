<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\LinkLost;
use JadeStep\Core\Access\AddressList;

/**
 * Which services may be asked over HTTP: those that the settings of the server name, and for vendors beside them any
 * public address over TLS. A lead who may write an address cannot look into this machine or its network by it.
 */
final readonly class AllowedAddresses
{
    private function __construct(private AddressList $named, private bool $public, private string $setting)
    {
    }

    public static function ofLinks(): self
    {
        $own = self::place(config()->string('jade.device_link'));
        $named = config()->string('jade.link_addresses').($own === null ? '' : ",{$own[0]}:{$own[1]}");

        return new self(AddressList::ofText($named), false, 'LINK_ADDRESSES');
    }

    public static function ofVendors(): self
    {
        return new self(AddressList::ofText(config()->string('jade.vendor_addresses')), true, 'VENDOR_ADDRESSES');
    }

    public static function ofWebhooks(): self
    {
        return new self(AddressList::ofText(config()->string('jade.webhook_addresses')), true, 'WEBHOOK_ADDRESSES');
    }

    public static function named(AddressList $list): self
    {
        return new self($list, false, 'LINK_ADDRESSES');
    }

    /** Of the stand-ins, which are both. */
    public static function ofPractice(): self
    {
        $named = config()->string('jade.link_addresses').','.config()->string('jade.vendor_addresses');

        return new self(AddressList::ofText($named), false, 'LINK_ADDRESSES');
    }

    /** @return string|null why it may not be asked, in words; null where it may */
    public function why(string $address): ?string
    {
        $parts = parse_url($address);
        if (! is_array($parts) || isset($parts['user']) || isset($parts['pass'])) {
            return 'An address holds no name and no password: whoever sees it would know them.';
        }
        $place = self::place($address);
        if ($place === null) {
            return 'An address begins with http:// or https:// and a host.';
        }
        [$host, $port] = $place;
        if ($this->named->names($host, $port)) {
            return null;
        }
        $bare = trim($host, '[]');
        $isIp = filter_var($bare, FILTER_VALIDATE_IP) !== false;
        if ($this->public && ($parts['scheme'] ?? '') === 'https' && (! $isIp || AddressList::isPublic($bare))) {
            return null;
        }

        return "{$host}:{$port} is not among the addresses that this server may ask. Whoever runs the server names it "
            ."in its settings ({$this->setting}), then it can be used here.";
    }

    /**
     * How an address is asked: where it is a name that no list has, only at the public addresses that it has now.
     *
     * @return array<int, mixed> options of curl
     *
     * @throws LinkLost where it may not be asked
     */
    public function toAsk(string $address, string $whom): array
    {
        $why = $this->why($address);
        $place = self::place($address);
        if ($why === null && $place !== null && ! $this->named->names(...$place)) {
            [$host, $port] = $place;
            $ips = self::addressesOf($host);
            $why = match (true) {
                $ips === [] => "{$host} is not known by that name.",
                array_filter($ips, AddressList::isPublic(...)) !== $ips => "{$host} leads to an address that is not "
                    .'public.',
                default => null,
            };
        }
        $why === null || throw new LinkLost("{$whom} is not asked: {$why}");

        return isset($ips, $host, $port) ? [CURLOPT_RESOLVE => ["{$host}:{$port}:".implode(',', $ips)]] : [];
    }

    /** @return list<string> */
    private static function addressesOf(string $host): array
    {
        $bare = trim($host, '[]');

        return filter_var($bare, FILTER_VALIDATE_IP) !== false ? [$bare] : self::resolve($host);
    }

    /** @return array{string, int}|null host and port */
    private static function place(string $address): ?array
    {
        $parts = parse_url($address);
        $scheme = is_array($parts) ? $parts['scheme'] ?? '' : '';
        if (! is_array($parts) || ! isset($parts['host']) || ! in_array($scheme, ['http', 'https'], true)) {
            return null;
        }

        return [$parts['host'], $parts['port'] ?? ($scheme === 'https' ? 443 : 80)];
    }

    /** @return list<string> */
    private static function resolve(string $host): array
    {
        $records = @dns_get_record($host, DNS_A | DNS_AAAA);
        $ips = array_map(
            static fn (array $r): mixed => $r['ip'] ?? $r['ipv6'] ?? null,
            $records === false ? [] : $records,
        );
        $more = gethostbynamel($host); // also what only this machine's own tables know

        return array_values(array_unique(array_filter([...$ips, ...($more === false ? [] : $more)], is_string(...))));
    }
}
