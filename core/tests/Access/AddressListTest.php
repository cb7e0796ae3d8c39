<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Access;

use JadeStep\Core\Access\AddressList;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AddressListTest extends TestCase
{
    /** @return iterable<string, array{string, string, int, bool}> list, host, port, whether it is named */
    public static function asked(): iterable
    {
        yield 'a host with its port' => ['127.0.0.1:8932', '127.0.0.1', 8932, true];
        yield 'another port of it' => ['127.0.0.1:8932', '127.0.0.1', 8933, false];
        yield 'a host with all its ports' => ['127.0.0.1', '127.0.0.1', 22, true];
        yield 'its neighbour' => ['127.0.0.1', '127.0.0.2', 22, false];
        yield 'a network' => ['10.0.7.0/24:8932', '10.0.7.200', 8932, true];
        yield 'beside the network' => ['10.0.7.0/24:8932', '10.0.8.1', 8932, false];
        yield 'a network that ends within a byte' => ['172.16.0.0/12', '172.31.255.255', 1, true];
        yield 'beside it' => ['172.16.0.0/12', '172.32.0.0', 1, false];
        yield 'a name' => ['links.skerry.example:443', 'Links.Skerry.example', 443, true];
        yield 'a name that only ends like it' => ['skerry.example', 'notskerry.example', 443, false];
        yield 'an address of version 6' => ['[fd00::7]:8932', '[fd00::7]', 8932, true];
        yield 'the same, written another way' => ['[fd00::7]:8932', 'fd00:0:0::7', 8932, true];
        yield 'a network of version 6' => ['[fd00::/8]:1', 'fdff::1', 1, true];
        yield 'one of several' => ["127.0.0.1:1, \n 10.0.0.9:2", '10.0.0.9', 2, true];
        yield 'an empty list' => ['', '127.0.0.1', 80, false];
        yield 'everything' => ['0.0.0.0/0', '198.41.0.4', 80, true];
    }

    #[DataProvider('asked')]
    public function test_hosts_and_networks_are_named_with_their_ports(
        string $list,
        string $host,
        int $port,
        bool $named,
    ): void {
        self::assertSame($named, AddressList::ofText($list)->names($host, $port));
    }

    public function test_what_is_public_is_what_the_registries_leave(): void
    {
        // the registries are IANA's for special purposes; the public addresses are two root name servers' (from memory)
        $special = [
            '127.0.0.1', '10.1.2.3', '169.254.169.254', '192.168.1.1', '100.64.0.1', '0.0.0.0', '::1', 'fe80::1',
            'fd00::1', '::ffff:127.0.0.1', '2001:db8::1', '64:ff9b::7f00:1', '2002:7f00:1::', 'localhost',
        ];
        foreach (
            $special as $ip
        ) {
            self::assertFalse(AddressList::isPublic($ip), $ip);
        }
        foreach (['198.41.0.4', '2001:500:2::c'] as $ip) {
            self::assertTrue(AddressList::isPublic($ip), $ip);
        }
    }
}
