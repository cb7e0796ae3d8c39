<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Digest;
use JadeStep\Core\Bag\Internal\RunningDigest;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** FIPS 180-4, the examples of SHA-256 that NIST publishes with it. */
final class RunningDigestTest extends TestCase
{
    /** @param  list<string>  $pieces */
    #[DataProvider('examples')]
    public function test_what_passes_by_has_the_published_digest(array $pieces, string $digest): void
    {
        $running = RunningDigest::begin();
        array_map($running->add(...), $pieces);

        self::assertSame($digest, $running->end());
        self::assertSame($digest, Digest::ofText(implode('', $pieces)));
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function examples(): iterable
    {
        $two = 'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq';
        yield 'one block' => [['abc'], 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'];
        yield 'one block, in pieces' => [
            ['a', '', 'bc'],
            'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
        ];
        yield 'two blocks' => [[$two], '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1'];
        yield 'nothing' => [[], 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855'];
        yield 'a million letters a' => [
            array_fill(0, 1000, str_repeat('a', 1000)),
            'cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0',
        ];
    }

    public function test_two_at_once_do_not_mix(): void
    {
        [$one, $other] = [RunningDigest::begin(), RunningDigest::begin()];
        $one->add('a');
        $other->add('b');
        $one->add('bc');

        self::assertSame('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad', $one->end());
        self::assertSame(hash('sha256', 'b'), $other->end());
    }
}
