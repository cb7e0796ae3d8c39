<?php

declare(strict_types=1);

namespace Tests\Reference;

use Composer\Semver\Comparator;
use Composer\Semver\Semver;
use JadeStep\Core\Bag\Digest;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Permit\KeySet;
use JadeStep\Core\Route\Base;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Rate;
use JadeStep\Core\Route\Treatment;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The core against published standards, worked examples and trade facts. The source stands beside each check. */
final class StandardsTest extends TestCase
{
    use TemporaryFolder;

    /** SemVer 2.0.0, section 11.4.4: the precedence chain as it is printed there. */
    public function test_versions_keep_the_printed_precedence_chain(): void
    {
        $chain = [
            '1.0.0-alpha',
            '1.0.0-alpha.1',
            '1.0.0-alpha.beta',
            '1.0.0-beta',
            '1.0.0-beta.2',
            '1.0.0-beta.11',
            '1.0.0-rc.1',
            '1.0.0',
        ];
        $order = [...$chain, '2.0.0', '2.1.0', '2.1.1']; // section 11.2: 1.0.0 < 2.0.0 < 2.1.0 < 2.1.1

        foreach ($order as $i => $lower) {
            foreach ($order as $j => $higher) {
                self::assertSame(
                    $i <=> $j,
                    Version::parse($lower)->compare(Version::parse($higher)) <=> 0,
                    "{$lower} against {$higher}",
                );
            }
        }
    }

    /** composer/semver, over generated pairs (seeded) of releases, betas and candidates. */
    public function test_versions_are_ordered_as_composer_orders_them(): void
    {
        mt_srand(42);
        $make = static fn (): string => mt_rand(7, 10)
            .'.'
            .mt_rand(0, 3)
            .'.'
            .mt_rand(0, 2)
            .['', '-beta.'.mt_rand(1, 12), '-rc.'.mt_rand(1, 3)][mt_rand(0, 2)];

        for ($i = 0; $i < 4000; $i++) {
            [$a, $b] = [$make(), $make()];
            $expected = Comparator::lessThan($a, $b) ? -1 : (Comparator::greaterThan($a, $b) ? 1 : 0);
            self::assertSame($expected, Version::parse($a)->compare(Version::parse($b)) <=> 0, "{$a} against {$b}");
        }
    }

    /** composer/semver, whose syntax ranges have: on versions without a pre-release both hold alike. */
    public function test_ranges_hold_as_composers_do(): void
    {
        mt_srand(43);
        $number = static fn (): string => (string) mt_rand(0, 4);
        $partial = static fn (): string => implode('.', array_map($number, range(1, mt_rand(1, 3))));
        $atom = static fn (): string => match (mt_rand(0, 6)) {
            0 => '^'.$partial(),
            1 => '~'.$partial(),
            2 => implode('.', array_map($number, range(1, mt_rand(1, 2)))).'.*',
            3 => $partial().' - '.$partial(),
            default => ['', '=', '==', '!=', '<>', '<', '<=', '>', '>='][mt_rand(0, 8)].$partial(),
        };
        $all = static fn (): string => implode(
            [' ', ', ', ','][mt_rand(0, 2)],
            array_map($atom, range(1, mt_rand(1, 3))),
        );
        for ($i = 0; $i < 3000; $i++) {
            $range = implode([' || ', '|', '||'][mt_rand(0, 2)], array_map($all, range(1, mt_rand(1, 2))));
            $version = "{$number()}.{$number()}.{$number()}";
            self::assertSame(
                Semver::satisfies($version, $range),
                VersionRange::parse($range)->contains(Version::parse($version)),
                "{$version} in {$range}",
            );
        }
    }

    /** FIPS 180-4, SHA-256 examples published with it: one block, two blocks, and a million times "a". */
    #[DataProvider('fips')]
    public function test_digests_are_those_of_the_standard(string $message, string $digest): void
    {
        file_put_contents("{$this->folder}/m", $message);

        self::assertSame($digest, Digest::ofFile("{$this->folder}/m"));
    }

    /** @return iterable<array{string, string}> */
    public static function fips(): iterable
    {
        yield ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'];
        yield [
            'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
            '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
        ];
        yield [str_repeat('a', 1_000_000), 'cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0'];
    }

    /** A file too large to be read at once takes another way to the same digest, which coreutils knows too. */
    public function test_large_files_have_the_digest_that_coreutils_finds(): void
    {
        file_put_contents("{$this->folder}/large", str_repeat(random_bytes(1024), 17_000));
        $read = 0;

        $digest = Digest::ofFile("{$this->folder}/large", static function (int $bytes) use (&$read): void {
            $read += $bytes;
        });

        self::assertSame(
            substr((string) shell_exec('sha256sum '.escapeshellarg("{$this->folder}/large")), 0, 64),
            $digest,
        );
        self::assertSame(17_000 * 1024, $read);
    }

    /**
     * RFC 8493 section 2.2.2: a long value may be folded, its further lines indented. Section 2.1.1: the declaration.
     */
    public function test_tag_files_are_read_as_the_bag_standard_writes_them(): void
    {
        $text =
            "BagIt-Version: 1.0\r\nTag-File-Character-Encoding: UTF-8\nExternal-Description: Uncompressed "
                ."greyscale scans\n      from the first\n\tand the second box\nPayload-Oxum: 279164409832.1198\n";

        self::assertSame(
            [
                ['BagIt-Version', '1.0'],
                ['Tag-File-Character-Encoding', 'UTF-8'],
                ['External-Description', 'Uncompressed greyscale scans from the first and the second box'],
                ['Payload-Oxum', '279164409832.1198'],
            ],
            TagLines::parse($text),
        );
    }

    /** coreutils: `sha256sum -c` on the manifest and the tag manifest of a bag that we wrote, as RFC 8493 promises. */
    public function test_coreutils_verifies_our_bags(): void
    {
        Sample::bag("{$this->folder}/b-17");
        // its percent sign is encoded in the manifest, which coreutils does not decode
        unlink("{$this->folder}/b-17/data/photos/album/100%.jpg");
        $manifest = "{$this->folder}/b-17/manifest-sha256.txt";
        file_put_contents($manifest, implode('', preg_grep('/100%25/', file($manifest) ?: [], PREG_GREP_INVERT) ?: []));

        exec(
            'cd '.escapeshellarg("{$this->folder}/b-17").' && sha256sum --strict -c manifest-sha256.txt 2>&1',
            $payload,
            $payloadStatus,
        );
        exec(
            'cd '.escapeshellarg("{$this->folder}/b-17").' && sha256sum -c tagmanifest-sha256.txt 2>&1',
            $tags,
            $tagStatus,
        );

        self::assertSame([0, 4], [$payloadStatus, count($payload)], implode("\n", $payload));
        // the one line that the test changed by hand is the one that is found
        self::assertSame(
            [1, ['manifest-sha256.txt: FAILED']],
            [$tagStatus, array_values(preg_grep('/FAILED$/', $tags) ?: [])],
        );
    }

    /** RFC 8037 appendix A.2 and A.3: the Ed25519 key printed there and its RFC 7638 thumbprint. */
    public function test_key_thumbprints_are_those_of_the_standard(): void
    {
        $keys = KeySet::parse(
            '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":"rfc","x":"11qYAYKxCrfVS_7TyWQHOg7hcvPapiMlrwIaaPcHURo"}]}',
        );

        self::assertSame(['rfc' => 'kPrK_qmxVWaYVA9wwBF6Iuo3vVzz7TxHCTwXBygrS4k'], $keys->thumbprints);
    }

    /**
     * PERT: the "Reliable Construction" example of Hillier and Lieberman, Introduction to Operations Research: the
     * critical path's eight activities have a mean of 44 weeks and a variance of 9. Figures from memory.
     */
    public function test_three_point_estimates_give_the_textbooks_critical_path(): void
    {
        $path = [[1, 2, 3], [2, 3.5, 8], [6, 9, 18], [1, 4.5, 5], [4, 4, 10], [3, 9, 9], [1, 5.5, 7], [5, 5.5, 9]];

        $whole = Minutes::sum(...array_map(static fn (array $p): Minutes => Minutes::of(...$p), $path));

        self::assertEqualsWithDelta(44.0, $whole->expected, 1e-9);
        self::assertEqualsWithDelta(9.0, $whole->deviation ** 2, 1e-9);
        self::assertSame([4.0, 1.0], [Minutes::of(2, 3.5, 8)->expected, Minutes::of(2, 3.5, 8)->deviation]);
    }

    /** Common practice, no source: a package of 6.55 GB takes about 18 minutes, which is 6.1 MB/s. */
    public function test_a_usual_package_takes_as_long_as_the_trade_says(): void
    {
        self::assertEqualsWithDelta(18, Rate::usual(6_100_000)->minutesFor(6_550_000_000)->likely, 0.2);
    }

    /** Common practice, no source: a device of 128 GB with 90 GB free holds at most 38 GB to back up. */
    public function test_used_storage_bounds_the_backup(): void
    {
        $device = Sample::read(Sample::situation(['capacityBytes' => 128_000_000_000, 'freeBytes' => 90_000_000_000]))
            ->device;

        self::assertSame(38_000_000_000, $device->backupBytesAtMost());
    }

    /**
     * Common practice, no source: a backup that declares a little less than is installed is accepted as an equal one.
     */
    public function test_a_backup_from_a_little_below_needs_no_lowering(): void
    {
        $treatment = static fn (string $declared): Treatment => Base::held(
            new HeldBackup('b', false, new \DateTimeImmutable(Sample::NOW), Version::parse($declared),
                Version::parse($declared), false, false, true, [], []),
            Version::parse('8.7.0'),
        )->treatment;

        self::assertSame(
            [Treatment::AsIs, Treatment::AsIs, Treatment::Lowered],
            [$treatment('8.6.1'), $treatment('8.7.0'), $treatment('8.7.1')],
        );
    }

    /**
     * The check digit is the Luhn formula (ISO/IEC 7812-1 annex B; 3GPP TS 23.003 annex B). The account number
     * 7992739871 with check digit 3 is the example that is usually printed for it (from memory); 490154203237518 is
     * the usual example of an IMEI (from memory).
     */
    public function test_the_imeis_check_digit_follows_luhn(): void
    {
        self::assertSame(3, Imei::checkDigit('00007992739871'));
        self::assertSame(8, Imei::checkDigit('49015420323751'));
        self::assertSame('49015420', Imei::parse('49-015420-323751-8')->tac());
    }

    /**
     * R's quantile(x, c(.1, .5, .9), type = 7), its default, of the numbers 1 to 4 gives 1.3, 2.5 and 3.7 (Hyndman
     * and Fan 1996, definition 7).
     */
    public function test_percentiles_of_measured_rates_are_those_of_r(): void
    {
        $rate = Rate::measured([4.0, 2.0, 1.0, 3.0]);

        self::assertNotNull($rate);
        self::assertEqualsWithDelta([1.3, 2.5, 3.7], array_values($rate->points()), 1e-12);
        self::assertNull(Rate::measured([1.0, 2.0]));
    }
}
