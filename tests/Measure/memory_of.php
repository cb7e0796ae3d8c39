<?php

declare(strict_types=1);

// One thing done with a bag of many small items, in a process of its own: memory_of.php WHAT ITEMS FOLDER
// It prints the seconds that it took and the most memory that the process had, in kB.

use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EarlierBag;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Bag\Writer;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\SideExport;
use JadeStep\Core\Version\Version;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $what, $items, $folder] = $argv;
$time = new DateTimeImmutable('2026-11-01T12:00:00Z');
$text = static fn (int $i): string => str_pad("item {$i} ", 100, '.');
$listing = static fn (): Inventory => Inventory::parse((static function () use ($items, $text): Generator {
    yield json_encode(['kind' => 'photos', 'items' => (int) $items, 'storeSchema' => 9]);
    for ($i = 0; $i < $items; $i++) {
        yield json_encode([
            'kind' => 'photos',
            'path' => sprintf('%03d/item-%06d.jpg', intdiv($i, 1000), $i),
            'bytes' => 100,
            'sha256' => hash('sha256', $text($i)),
            'modifiedAt' => '2026-11-01T12:00:00Z',
        ]);
    }
})());
$finish = static function (Writer $writer, string $id, Encryption $encryption) use ($time): void {
    $version = Version::parse('9.3.0');
    $writer->finish(
        new BagDescription($id, 'SKL-9001', 'FN7-2', 'tarn', $version, $version, $time, $encryption, $id),
        ['photos' => 9],
    );
};
$write = static function (Writer $writer, Inventory $listed) use ($text): void {
    foreach ($writer->lacks($listed) as $item) {
        $writer->takeWhole($item, $text((int) substr($item->path, 9, 6)));
    }
};
$pgp = static fn (): OpenPgp => new OpenPgp("{$folder}/gnupg", Passphrase::parse('harbour light at low tide'));
$plain = static fn (): PlainContent => new PlainContent(BagReader::open("{$folder}/plain"));

$started = microtime(true);
match ($what) {
    'back up' => (static function () use ($listing, $write, $finish, $folder): void {
        [$listed, $writer] = [$listing(), BagWriter::open("{$folder}/plain")];
        $write($writer, $listed);
        $finish($writer, 'plain', Encryption::None);
    })(),
    'back up again' => (static function () use ($listing, $write, $finish, $folder): void {
        [$listed, $writer] = [$listing(), BagWriter::open("{$folder}/again")];
        $earlier = EarlierBag::open("{$folder}/plain", 8) ?? throw new LogicException('It is there.');
        $writer->share($earlier, $listed, static fn () => null);
        $write($writer, $listed);
        $finish($writer, 'again', Encryption::None);
    })(),
    'verify' => BagVerifier::verify("{$folder}/plain")->isSound() || throw new RuntimeException('It is not sound.'),
    'lower' => Lowering::lower("{$folder}/plain", "{$folder}/low", Version::parse('8.7.0'), 'low', $time),
    'prove' => Reconciliation::compare($plain()->inventory(), $listing(), RewriteRule::usual())->nothingMissing()
        || throw new RuntimeException('Something is missing.'),
    'return' => $plain()->each(static function (Item $item, callable $read): void {
        while ($read(262_144) !== '') {
            continue;
        }
    }),
    'export' => SideExport::write($plain(), [Kind::Photos], 'x', $time, new TarWriter(static fn () => null)),
    'back up encrypted' => (static function () use ($listing, $write, $finish, $folder, $pgp): void {
        [$listed, $writer] = [$listing(), EncryptedBagWriter::open("{$folder}/closed", $pgp())];
        $write($writer, $listed);
        $finish($writer, 'closed', Encryption::OpenPgp);
    })(),
    'open encrypted' => (new EncryptedContent("{$folder}/closed", $pgp()))->prove() === []
        || throw new RuntimeException('It is not as it was written.'),
    default => throw new LogicException("Nothing is called {$what}."),
};
$status = (string) file_get_contents('/proc/self/status');
printf("%.1f %d\n", microtime(true) - $started, preg_match('/^VmHWM:\s+(\d+)/m', $status, $m) === 1 ? $m[1] : 0);
