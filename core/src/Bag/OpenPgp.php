<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\Unopened;

/**
 * Encrypts and opens OpenPGP messages (RFC 9580, RFC 4880) with a passphrase, or encrypts them for a public key. GnuPG
 * does the work, in a home folder of its own; the passphrase goes through a file descriptor, content streams through
 * pipes and never lies on the disk.
 */
final readonly class OpenPgp
{
    private const ALWAYS = ['--batch', '--quiet', '--no-options', '--status-fd', '2'];

    private const BY_PASSPHRASE = [
        '--no-symkey-cache',
        '--pinentry-mode',
        'loopback',
        '--passphrase-fd',
        '3',
    ];

    // AES-256, integrity protected
    private const ENCRYPTED = ['--cipher-algo', 'AES256', '--compress-algo', 'none', '--set-filename', ''];

    // iterated and salted S2K with SHA-512 and the highest count (RFC 4880 section 3.7.1.3)
    private const SYMMETRIC = [
        '--symmetric',
        '--s2k-mode',
        '3',
        '--s2k-digest-algo',
        'SHA512',
        '--s2k-count',
        '65011712',
    ];

    public function __construct(private string $home, private Passphrase|PublicKey $by)
    {
        is_dir($home) || mkdir($home, 0o700, true);
    }

    /** The fingerprint of the key that it closes for; null where it closes with a passphrase. */
    public function closedFor(): ?string
    {
        return $this->by instanceof PublicKey ? $this->by->fingerprint : null;
    }

    /**
     * Encrypts what is written into the stream that is given to the callback.
     *
     * @template T
     *
     * @param  string  $file  which must not be there yet
     * @param  callable(resource): T  $write
     * @return T
     *
     * @throws Unopened
     */
    public function encrypt(string $file, callable $write): mixed
    {
        $message = $this->begin($file);
        try {
            $result = $write($message->stream());
        } catch (\Throwable $e) {
            $message->abandon();

            throw $e;
        }
        $message->end();

        return $result;
    }

    /** For content that comes bit by bit; ended by its `end`. */
    public function begin(string $file): Internal\PgpMessage
    {
        return new Internal\PgpMessage(
            $this->command(
                $this->by instanceof Passphrase
                    ? [...self::BY_PASSPHRASE, ...self::ENCRYPTED, ...self::SYMMETRIC]
                    : [...self::ENCRYPTED, ...$this->forKey($this->by)],
            ),
            $this->by instanceof Passphrase ? $this->by : null,
            ['pipe', 'r'],
            ['file', $file, 'xb'],
            basename($file),
        );
    }

    /** @return list<string> the key itself comes from a file, and is taken into no keyring */
    private function forKey(PublicKey $key): array
    {
        $file = "{$this->home}/{$key->fingerprint}.asc";
        if (! is_file($file)) {
            file_put_contents($file, $key->armored);
        }

        return ['--trust-model', 'always', '--encrypt', '--recipient-file', $file];
    }

    /**
     * Gives the content of a message to the callback as a stream. What the callback reads counts only when this
     * returns: the integrity of a message is known at its end.
     *
     * @template T
     *
     * @param  callable(resource): T  $read
     * @return T
     *
     * @throws Unopened where the passphrase is wrong or the message is damaged
     */
    public function decrypt(string $file, callable $read): mixed
    {
        $this->by instanceof Passphrase || throw Unopened::closedForKey($this->by->fingerprint);
        is_file($file) || throw Unopened::damaged(basename($file), 'it is not there');
        $message = new Internal\PgpMessage(
            $this->command([...self::BY_PASSPHRASE, '--decrypt']),
            $this->by,
            ['file', $file, 'rb'],
            ['pipe', 'w'],
            basename($file),
        );
        try {
            $result = $read($message->stream());
        } catch (\Throwable $e) {
            // a message that did not open gives no content, which its reader then stumbles over: say the cause
            $message->endEvenIfCut() ?? throw $e;

            throw $message->endEvenIfCut();
        }
        $message->end();

        return $result;
    }

    public function text(string $file): string
    {
        return $this->decrypt($file, static fn ($stream): string => (string) stream_get_contents($stream));
    }

    /**
     * @param  list<string>  $words
     * @return list<string>
     */
    private function command(array $words): array
    {
        return ['gpg', '--homedir', $this->home, ...self::ALWAYS, ...$words];
    }
}
