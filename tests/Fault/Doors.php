<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\ImportLimits;
use JadeStep\Core\Bag\Internal\TarReader;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Bag\ZipBag;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\ExchangeException;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\IntakeCsv;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\SideExport;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Permit\Exception\PermitException;
use JadeStep\Core\Permit\Jws;
use JadeStep\Core\Permit\KeySet;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\RandomSituations;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Exception\VersionException;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Throws altered documents, bags, archives, tables and tokens at the doors of the core. Whatever comes in, what comes
 * out is an answer or a sentence: no error of PHP, no warning, and no more memory than the input is worth.
 */
final class Doors
{
    /** What a field may hold that nobody expects. */
    private const ODD = [
        'null', 'true', '-1', '0', '1.5', '80.0', '1e300', '-1e300', '1e-300', '1e999', '9007199254740993',
        '9223372036854775807', '9223372036854775808', '123456789012345678901234567890', '""', '"\u0000"', '"\ud800"',
        '"9999-12-31T23:59:59Z"', '"0000-00-00T00:00:00Z"', '"2026-02-31T25:61:61Z"', '">=9.0.0-x.7.z.92"',
        '"99999999999.0.0"', '"1.0.0-beta.99999999999"', '"planned"', '"cloud"', '[]', '{}', '[[]]', '{"":{}}',
        '"=1+1"', '"../../x"', '"C:x"',
    ];

    private const MOST_MEMORY = 400_000_000;

    private Randomizer $random;

    private readonly Almanac $almanac;

    private string $bag;

    private int $bags = 0;

    /** @param  string  $folder  that may be written to */
    public function __construct(private readonly string $folder)
    {
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]]);
        $this->almanac = Sample::almanac(Sample::catalogue([$build]));
        Sample::bag($this->bag = "{$folder}/original");
        $this->random = new Randomizer(new Mt19937(0));
    }

    /** @return list<string> what may be thrown at */
    public static function names(): array
    {
        return [
            'situation', 'catalogue', 'key set', 'token', 'inventory', 'builds table', 'intake table', 'zip', 'bag',
            'lowering', 'side export', 'tar', 'version', 'range', 'time',
        ];
    }

    /** @return string|null what went wrong; null where the door held */
    public function throwAt(string $door, int $seed): ?string
    {
        $this->random = new Randomizer(new Mt19937($seed));
        $errors = [];
        set_error_handler(static function (int $level, string $message, string $file, int $line) use (&$errors): bool {
            // the vCard library's own deprecations are not ours; what is silenced is looked at where it is silenced
            if ((error_reporting() & $level) !== 0 && ! str_contains($file, '/vendor/')) {
                $errors[] = "{$message} at {$file}:{$line}";
            }

            return true;
        });
        memory_reset_peak_usage();
        $before = memory_get_usage();
        try {
            $this->open($door, $seed);
        } catch (ExchangeException|BagException|PermitException|VersionException $e) {
            trim($e->getMessage()) !== '' || $errors[] = $e::class.' says nothing';
        } catch (\InvalidArgumentException $e) {
            in_array($door, ['time'], true) || $errors[] = $e::class.": {$e->getMessage()}";
        } catch (\Throwable $e) {
            $errors[] = $e::class.": {$e->getMessage()} at {$e->getFile()}:{$e->getLine()}";
        } finally {
            restore_error_handler();
        }
        if (memory_get_peak_usage() - $before > self::MOST_MEMORY) {
            $errors[] = 'it took '.intdiv(memory_get_peak_usage() - $before, 1_000_000).' MB';
        }

        return $errors === [] ? null : "{$door}, seed {$seed}: ".implode('; ', array_slice($errors, 0, 3));
    }

    private function open(string $door, int $seed): mixed
    {
        return match ($door) {
            'situation' => json_encode(PlanDocument::write(
                (new Planner($this->almanac))->plan(SituationDocument::parse($this->altered($this->situation()))),
            ), JSON_THROW_ON_ERROR),
            'catalogue' => json_encode(PlanDocument::write((new Planner(
                Almanac::of(CatalogueDocument::parse($this->altered($this->catalogue()))),
            ))->plan(Sample::read(Sample::situation()))), JSON_THROW_ON_ERROR),
            'key set' => KeySet::parse($this->altered(self::keys())),
            'token' => Jws::open($this->token(), KeySet::parse(self::keys()), Rfc3339::parse(Sample::NOW)),
            'inventory' => iterator_to_array(Inventory::parse(explode("\n", $this->altered(
                (string) file_get_contents("{$this->bag}/inventory.jsonl"),
            )))->lines(), false),
            'builds table' => BuildsCsv::read(
                $this->scrambled(BuildsCsv::write(CatalogueDocument::parse($this->catalogue()))),
                Fields::of(Sample::catalogue([])),
            ),
            'intake table' => IntakeCsv::read(
                $this->scrambled("serial,modelName,version,goal\nSKL-0801,Fenn 7,9.3,newest in 8\n"),
                $this->almanac,
            ),
            'zip' => $this->zip($seed),
            'bag' => $this->verified($seed),
            'lowering' => $this->lowered($seed),
            'side export' => $this->exported($seed),
            'tar' => $this->tar(),
            'version' => (string) Version::parse($this->scrambled('9.3.1-beta.2+build.7')),
            'range' => VersionRange::parse($this->scrambled('>=7.0 <8.7 || ^9.1 - 10.*'))
                ->contains(Version::parse('8.0.0-x.7')),
            'time' => Rfc3339::parse($this->scrambled(Sample::NOW)),
            default => throw new \LogicException("There is no door {$door}."),
        };
    }

    private function situation(): string
    {
        return json_encode((new RandomSituations($this->random->getInt(0, 1 << 30)))->next()[1], JSON_THROW_ON_ERROR);
    }

    private function catalogue(): string
    {
        return json_encode(
            (new RandomSituations($this->random->getInt(0, 1 << 30)))->next()[0][0],
            JSON_THROW_ON_ERROR,
        );
    }

    private static function keys(): string
    {
        $pair = sodium_crypto_sign_seed_keypair(str_repeat('k', 32));
        $x = rtrim(strtr(base64_encode(sodium_crypto_sign_publickey($pair)), '+/', '-_'), '=');

        return '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":"k1","x":"'.$x.'"},{"kty":"RSA","n":"AQAB","e":"AQAB"}]}';
    }

    /** Altered before it is signed, or after. */
    private function token(): string
    {
        $encode = static fn (string $t): string => rtrim(strtr(base64_encode($t), '+/', '-_'), '=');
        $head = '{"alg":"EdDSA","kid":"k1","typ":"JWT"}';
        $claims = '{"sub":"SKL-0042","iat":1795165200,"exp":1795165800,"more":{"a":[1,2]}}';
        $which = $this->random->getInt(0, 2);
        $input = $encode($which === 0 ? $this->altered($head) : $head)
            .'.'.$encode($which === 1 ? $this->altered($claims) : $claims);
        $secret = sodium_crypto_sign_secretkey(sodium_crypto_sign_seed_keypair(str_repeat('k', 32)));
        $compact = $input.'.'.$encode(sodium_crypto_sign_detached($input, $secret));

        return $which === 2 ? $this->scrambled($compact) : $compact;
    }

    /** A JSON text with something else in some of its places, or with its bytes changed. */
    private function altered(string $json): string
    {
        $way = $this->random->getInt(0, 9);
        if ($way === 0) {
            return $this->scrambled($json);
        }
        if ($way === 1) {
            return str_repeat('[', $depth = $this->random->getInt(1, 5000)).$json.str_repeat(']', $depth);
        }
        if ($way === 2) {
            return (string) preg_replace('/\{("[^"]+":)/', '{$1 1,$1', $json, 1);
        }
        for ($i = $this->random->getInt(1, $way > 4 ? 6 : 1); $i > 0; $i--) {
            $json = $this->withAnother($json, $way > 4);
        }

        return $json;
    }

    /** @param  bool  $alike  whether what comes in has the type of what goes, so that more than the door sees it */
    private function withAnother(string $json, bool $alike): string
    {
        // a value after a colon, or within a list
        $value = '/(?<=[:,\[])(?:"(?:[^"\\\\]|\\\\.)*"|-?[0-9.]+|null|true|false)(?=[,}\]])/';
        preg_match_all($value, $json, $m, PREG_OFFSET_CAPTURE);
        if ($m[0] === []) {
            return $json;
        }
        [$old, $at] = $m[0][$this->random->getInt(0, count($m[0]) - 1)];
        $others = match (true) {
            ! $alike => self::ODD,
            $old[0] === '"' => preg_grep('/\A"/', array_column($m[0], 0)) ?: self::ODD,
            is_numeric($old) => ['0', '1', '2', '3.0', '50', '1000000000000', '9007199254740991'],
            default => ['true', 'false', 'null'],
        };

        $others = array_values($others);

        return substr_replace($json, $others[$this->random->getInt(0, count($others) - 1)], $at, strlen($old));
    }

    /** Bytes flipped, cut out, doubled, or put in. */
    private function scrambled(string $text): string
    {
        for ($i = $this->random->getInt(1, 6); $i > 0 && $text !== ''; $i--) {
            $at = $this->random->getInt(0, strlen($text) - 1);
            $length = $this->random->getInt(1, 40);
            $text = match ($this->random->getInt(0, 6)) {
                0 => substr_replace($text, chr($this->random->getInt(0, 255)), $at, 1),
                1 => substr_replace($text, '', $at, $length),
                2 => substr_replace($text, substr($text, $at, $length), $at, 0),
                3 => substr_replace($text, $this->random->getBytes($length), $at, 0),
                4 => substr_replace($text, $this->odd(), $at, 0),
                5 => substr($text, 0, $at),
                default => substr_replace($text, str_repeat(substr($text, $at, 1), 5000), $at, 0),
            };
        }

        return $text;
    }

    private function odd(): string
    {
        return trim(self::ODD[$this->random->getInt(0, count(self::ODD) - 1)], '"');
    }

    /** A copy of the bag in which files, names and texts are other than they were. */
    private function alteredBag(int $seed): string
    {
        $bag = "{$this->folder}/bag-{$seed}-".(++$this->bags);
        exec('cp -r '.escapeshellarg($this->bag).' '.escapeshellarg($bag));
        $files = ['bagit.txt', 'bag-info.txt', 'manifest-sha256.txt', 'tagmanifest-sha256.txt', 'inventory.jsonl'];
        for ($i = $this->random->getInt(1, 3); $i > 0; $i--) {
            $file = "{$bag}/".$files[$this->random->getInt(0, count($files) - 1)];
            $text = is_file($file) ? (string) file_get_contents($file) : '';
            match ($this->random->getInt(0, 6)) {
                0 => @unlink($file),
                1 => @mkdir("{$bag}/data/".bin2hex($this->random->getBytes(3)), recursive: true),
                2 => @symlink('/etc', "{$bag}/data/photos/link{$i}"),
                3 => file_put_contents("{$bag}/".$this->random->getInt(0, 999), 'a tag file'),
                4 => file_put_contents("{$bag}/manifest-md5.txt", $this->scrambled(md5('x')."  data/contacts/a.vcf\n")),
                default => file_put_contents($file, $this->scrambled($text)),
            };
        }

        return $bag;
    }

    private function verified(int $seed): int
    {
        $bag = $this->alteredBag($seed);
        try {
            return count(BagVerifier::verify($bag)->faults);
        } finally {
            exec('rm -rf '.escapeshellarg($bag));
        }
    }

    private function lowered(int $seed): string
    {
        $bag = $this->alteredBag($seed);
        try {
            return Lowering::lower($bag, "{$bag}-low", Version::parse('8.7.0'), 'low', Rfc3339::parse(Sample::NOW))
                ->description->id;
        } finally {
            exec('rm -rf '.escapeshellarg($bag).' '.escapeshellarg("{$bag}-low"));
        }
    }

    private function zip(int $seed): string
    {
        $file = "{$this->folder}/{$seed}.zip";
        $zip = new \ZipArchive;
        $zip->open($file, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach (['bagit.txt', 'bag-info.txt', 'manifest-sha256.txt', 'data/contacts/una.vcf'] as $name) {
            $zip->addFile("{$this->bag}/{$name}", "b/{$name}");
        }
        $zip->addFromString('b/'.$this->scrambled('data/photos/deck.jpg'), str_repeat('x', 1000));
        @$zip->close();
        $raw = is_file($file) ? (string) file_get_contents($file) : '';
        file_put_contents($file, $this->random->getInt(0, 1) === 0 ? $raw : $this->scrambled($raw));
        try {
            return ZipBag::unpack($file, "{$this->folder}/{$seed}-in", ImportLimits::usual(50_000_000));
        } finally {
            exec('rm -rf '.escapeshellarg($file).' '.escapeshellarg("{$this->folder}/{$seed}-in"));
        }
    }

    private function exported(int $seed): int
    {
        $folder = "{$this->folder}/export-{$seed}";
        $contents = [
            'contacts/una.vcf' => "BEGIN:VCARD\r\nVERSION:3.0\r\nN:Marsh;Una;;;\r\nFN:Una\r\nEND:VCARD\r\n",
            'calendars/a.ics' => "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n",
            'messages/a.jsonl' => "{\"from\":\"Teo\",\"text\":\"aye\"}\n",
            'call-log/calls.csv' => "when,who\r\n1,Teo\r\n",
        ];
        $writer = \JadeStep\Core\Bag\BagWriter::open($folder);
        foreach ($contents as $key => $text) {
            [$kind, $path] = explode('/', $key);
            $writer->put($kind, $path, Rfc3339::parse(Sample::NOW), Sample::stream($this->scrambled($text)));
        }
        $kinds = array_fill_keys(['contacts', 'calendars', 'messages', 'call-log'], null);
        $writer->finish(Sample::description(), $kinds);
        try {
            $bytes = 0;
            $tar = new TarWriter(static function (string $text) use (&$bytes): void {
                $bytes += strlen($text);
            });
            $content = new PlainContent(BagReader::open($folder));
            SideExport::write($content, Kind::cases(), 'x', Rfc3339::parse(Sample::NOW), $tar);

            return $bytes;
        } finally {
            exec('rm -rf '.escapeshellarg($folder));
        }
    }

    private function tar(): int
    {
        $text = '';
        $tar = new TarWriter(static function (string $piece) use (&$text): void {
            $text .= $piece;
        });
        $tar->addText('photos/a.jpg', 'x', 1_795_165_200);
        $tar->addText('photos/'.str_repeat('long/', 60).'ø.jpg', 'y', 1_795_165_200);
        $tar->end();
        $stream = Sample::stream($this->scrambled($text));
        $files = 0;
        (new TarReader($stream, 'photos-0001'))->each(static function (string $path, int $size) use (&$files): void {
            $files++;
        });

        return $files;
    }
}
