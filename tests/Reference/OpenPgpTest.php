<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\After;
use PHPUnit\Framework\Attributes\Before;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** Encrypted bags against GnuPG on its own, Sequoia's sq, and tar (all Debian's). */
final class OpenPgpTest extends TestCase
{
    use TemporaryFolder;

    private const PASSPHRASE = 'harbour light at low tide';

    private string $path = '';

    /** GnuPG itself, without what the other tests put before it. */
    #[Before]
    protected function lookForProgramsAsTheProductDoes(): void
    {
        $this->path = (string) getenv('PATH');
        putenv('PATH='.str_replace(RunningSystem::root().'/tests/Support/bin:', '', $this->path));
    }

    #[After]
    protected function lookForProgramsAsBefore(): void
    {
        putenv("PATH={$this->path}");
    }

    public function test_sequoia_and_tar_open_our_segments_without_us(): void
    {
        $this->needATerminal();
        $this->writeBag();
        // sq asks for the passphrase on a terminal, which script plays
        $this->shell(
            'printf "%s\n" "$3" | script -qec "sq decrypt --output seq.tar \"$1/data/photos-0001.tar.gpg\"" '
                .'/dev/null > sq.log 2>&1; test -s seq.tar && mkdir seq && tar -xf seq.tar -C seq',
            'Sequoia and tar',
        );
        self::assertStringEqualsFile("{$this->folder}/seq/photos/album/deck 1.jpg", str_repeat('rock', 5000));
    }

    public function test_gnupg_and_tar_open_our_segments_without_us_and_the_manifest_passes_sha256sum(): void
    {
        $this->writeBag();

        $this->shell(
            'mkdir home gpg && chmod 700 home && gpg --homedir home --batch --quiet --pinentry-mode loopback '
                .'--passphrase "$3" --decrypt "$1/data/settings-0001.tar.gpg" | tar -x -C gpg',
            'GnuPG and tar',
        );
        self::assertStringEqualsFile("{$this->folder}/gpg/settings/user/ålesund.json", '{}');
        $this->shell(
            'cd "$1" && sha256sum --quiet -c manifest-sha256.txt && sha256sum --quiet -c tagmanifest-sha256.txt',
            'coreutils',
        );
    }

    /**
     * RFC 4880 sections 5.3, 5.13, 3.7.1.3 and 9: a symmetric-key packet with AES-256 (9), iterated and salted S2K
     * (3) with SHA-512 (10) and the highest count (coded 255, 65011712), and an integrity protected packet (tag 18,
     * MDC method 2).
     */
    public function test_the_packets_are_those_that_the_standard_names(): void
    {
        $this->writeBag();
        $packets = $this->shell(
            'mkdir home && chmod 700 home && gpg --homedir home --batch --pinentry-mode loopback --passphrase '
                .'"$3" --list-packets "$1/data/photos-0001.tar.gpg" 2>/dev/null',
            'GnuPG',
        );

        self::assertStringContainsString(
            'cipher 9, aead 0,s2k 3, hash 10',
            str_replace('cipher 9, s2k', 'cipher 9, aead 0,s2k', $packets),
        );
        self::assertStringContainsString('count 65011712 (255)', $packets);
        self::assertStringContainsString('mdc_method: 2', $packets);
        self::assertStringContainsString('name=""', $packets, 'a message does not tell the name of its file');
    }

    public function test_we_read_a_bag_that_tar_and_gnupg_wrote(): void
    {
        $this->shell(<<<'SH'
            mkdir -p their/data tree/photos/album home && chmod 700 home
            printf 'rocks and foam' > tree/photos/album/deck.jpg
            long=$(printf 'a%.0s' $(seq 120)); printf 'far down' > "tree/photos/album/$long.jpg"
            d1=$(sha256sum < tree/photos/album/deck.jpg | cut -d' ' -f1)
            d2=$(sha256sum < "tree/photos/album/$long.jpg" | cut -d' ' -f1)
            day='"modifiedAt":"2026-11-01T12:00:00Z"'
            {
                printf '{"kind":"photos","items":2,"storeSchema":9}\n'
                printf '{"kind":"photos","path":"album/deck.jpg","bytes":14,"sha256":"%s",%s}\n' "$d1" "$day"
                printf '{"kind":"photos","path":"album/%s.jpg","bytes":8,"sha256":"%s",%s}\n' "$long" "$d2" "$day"
            } > inventory.jsonl
            enc() { gpg --homedir home --batch --yes --quiet --pinentry-mode loopback --passphrase "$pass" \
                --symmetric --cipher-algo AES256 -o "$1"; }
            pass=$3
            tar --format=posix -C tree -c photos | enc their/data/photos-0001.tar.gpg
            enc their/data/inventory.jsonl.gpg < inventory.jsonl
            SH, 'a bag of theirs');
        $content = new EncryptedContent("{$this->folder}/their", $this->pgp());

        self::assertSame([], $content->prove());
        self::assertSame(2, $content->inventory()->counts()['photos']);
    }

    public function test_we_open_what_sequoia_encrypted(): void
    {
        $this->needATerminal();
        $this->shell(
            'printf "from the other shore" > text; printf "%s\n%s\n" "$3" "$3" | script -qec "sq encrypt '
                .'--symmetric --binary --output sq.gpg text" /dev/null > sq.log 2>&1; test -s sq.gpg',
            'Sequoia',
        );

        self::assertSame('from the other shore', $this->pgp()->text("{$this->folder}/sq.gpg"));
    }

    /** sq takes a passphrase from a terminal and from nowhere else. */
    private function needATerminal(): void
    {
        Process::isPtySupported() || self::markTestSkipped(
            'sq asks for its passphrase on a terminal, and this system has none to play: mount /dev/pts.',
        );
    }

    private function writeBag(): void
    {
        $writer = EncryptedBagWriter::open("{$this->folder}/bag", $this->pgp());
        foreach (Sample::contents() as $kind => $items) {
            foreach ($items as $path => $text) {
                $writer->put(
                    new Item(
                        $kind,
                        $path,
                        strlen($text),
                        hash('sha256', $text),
                        Rfc3339::parse('2026-11-01T12:00:00Z'),
                    ),
                    Sample::stream($text),
                );
            }
        }
        $writer->finish(
            new BagDescription(
                'bag',
                'SKL-0042',
                'FN7-2',
                'tarn',
                Version::parse('9.3.0'),
                Version::parse('9.3.0'),
                Rfc3339::parse(Sample::NOW),
                Encryption::OpenPgp,
                'l',
            ),
            ['photos' => 9, 'contacts' => null, 'settings' => null],
        );
    }

    private function pgp(): OpenPgp
    {
        return new OpenPgp(
            sys_get_temp_dir().'/jade-step-test-gnupg-'.posix_geteuid(),
            Passphrase::parse(self::PASSPHRASE),
        );
    }

    /** @param  string  $what  told where it fails; in the script $1 is our bag, $2 the folder, $3 the passphrase */
    private function shell(string $script, string $what): string
    {
        $process = new Process(
            ['bash', '-c', $script, 'bash', "{$this->folder}/bag", $this->folder, self::PASSPHRASE],
            $this->folder,
            null,
            null,
            60,
        );
        self::assertSame(
            0,
            $process->run(),
            "{$what}: "
                .$process->getErrorOutput()
                .$process->getOutput()
                .@file_get_contents("{$this->folder}/sq.log"),
        );

        return $process->getOutput();
    }
}
