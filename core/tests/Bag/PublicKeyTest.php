<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Exception\UnusableKey;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\PublicKey;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** Closing for a public key: GnuPG makes the keys and opens what was closed, without us (RFC 9580). */
final class PublicKeyTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/jade-step-key-'.bin2hex(random_bytes(4));
        mkdir("{$this->folder}/owner", 0o700, true);
        $this->gpg('--quick-generate-key', 'Skerry Line <depot@skerry.example>', 'default', 'default', 'never');
    }

    protected function tearDown(): void
    {
        (new Process(['gpgconf', '--homedir', "{$this->folder}/owner", '--kill', 'gpg-agent']))->run();
        exec('rm -rf '.escapeshellarg($this->folder));
    }

    public function test_what_is_closed_for_it_opens_with_the_secret_part_alone(): void
    {
        $key = PublicKey::parse($this->gpg('--armor', '--export'), "{$this->folder}/ours");
        $pgp = new OpenPgp("{$this->folder}/ours", $key);
        $pgp->encrypt("{$this->folder}/closed.gpg", static fn ($out) => fwrite($out, 'ebb tide'));

        self::assertMatchesRegularExpression('/\A[0-9A-F]{40,64}\z/', $key->fingerprint);
        self::assertSame($key->fingerprint, $pgp->closedFor());
        self::assertSame('ebb tide', $this->gpg('--decrypt', "{$this->folder}/closed.gpg"));
        self::assertStringNotContainsString('ebb tide', (string) file_get_contents("{$this->folder}/closed.gpg"));
        $this->expectException(Unopened::class);
        $this->expectExceptionMessage('only who has its secret part opens it');
        $pgp->text("{$this->folder}/closed.gpg");
    }

    public function test_what_is_no_public_key_is_refused_in_words(): void
    {
        $public = $this->gpg('--armor', '--export');
        $refused = [
            'notes about tides' => 'no public OpenPGP key',
            substr($public, 0, 120) => 'no public OpenPGP key',
            $this->gpg('--armor', '--export-secret-keys') => 'secret key',
        ];
        foreach ($refused as $text => $words) {
            try {
                PublicKey::parse((string) $text, "{$this->folder}/ours");
                self::fail("This was taken for a key: {$words}");
            } catch (UnusableKey $e) {
                self::assertStringContainsString($words, $e->getMessage());
            }
        }
    }

    public function test_a_key_that_only_signs_closes_nothing(): void
    {
        $this->gpg('--quick-generate-key', 'Only signs <sign@skerry.example>', 'ed25519', 'sign', 'never');
        $this->expectExceptionMessage('no part that encrypts');

        PublicKey::parse($this->gpg('--armor', '--export', 'sign@skerry.example'), "{$this->folder}/ours");
    }

    private function gpg(string ...$words): string
    {
        return (new Process([
            'gpg',
            '--homedir',
            "{$this->folder}/owner",
            '--batch',
            '--quiet',
            '--pinentry-mode',
            'loopback',
            '--passphrase',
            '',
            ...$words,
        ]))
            ->mustRun()
            ->getOutput();
    }
}
