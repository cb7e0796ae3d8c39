<?php

declare(strict_types=1);

namespace Tests\Reference;

use App\Ports\DeviceMode;
use App\Ports\Exception\Declined;
use App\Ports\Http\AllowedAddresses;
use App\Ports\Http\HttpDeviceLink;
use App\Ports\Http\HttpVendorService;
use App\Ports\Http\JsonClient;
use App\Ports\Operation;
use App\Ports\Work;
use GuzzleHttp\Client;
use Illuminate\Http\Client\Factory;
use JadeStep\Core\Access\AddressList;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Permit\PermitRequest;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/**
 * The contract of docs/device-link.md, held against two programs that share nothing: the rig, and a second link in
 * Python that was written from that page alone.
 */
final class DeviceLinkTest extends TestCase
{
    private const PORT = 8944;

    private const SECOND_PORT = 8949;

    private static ?RunningSystem $system = null;

    private static ?Process $second = null;

    private string $serial;

    private HttpDeviceLink $link;

    public static function setUpBeforeClass(): void
    {
        self::$system = RunningSystem::start('contract', self::PORT, ['vendor', 'rig'], 200);
    }

    public static function tearDownAfterClass(): void
    {
        self::$second?->stop(1);
        self::$system?->stop();
        [self::$second, self::$system] = [null, null];
    }

    /** @return iterable<string, array{string}> */
    public static function links(): iterable
    {
        yield 'the rig' => ['rig'];
        yield 'a second link, in Python' => ['python'];
    }

    #[DataProvider('links')]
    public function test_ports_and_readings(string $which): void
    {
        $this->use($which);
        $port = array_values(array_filter($this->link->ports(), fn ($p): bool => $p->serial === $this->serial))[0];

        self::assertSame(['normal', '9.3.0'], [$port->mode?->value, $port->version]);
        self::assertSame('no-such-device', $this->refusal(fn () => $this->link->read('SKL-9999')));
        $reading = $this->link->read($this->serial);
        self::assertSame(
            [$this->serial, 'FN7-2', false, true, true, []],
            [
                $reading->device->serial,
                $reading->device->hardwareId,
                $reading->isPaired(),
                $reading->device->bootable,
                $reading->activated,
                $reading->device->kinds,
            ],
        );
        self::assertNull($reading->device->freeBytes);
        self::assertNull($reading->operation);
        self::assertSame('no-such-operation', $this->refusal(fn () => $this->link->operation($this->serial, 'none')));
    }

    #[DataProvider('links')]
    public function test_nothing_of_the_owners_is_told_before_the_device_said_yes(string $which): void
    {
        $this->use($which);
        self::assertSame('not-paired', $this->refusal(fn () => $this->link->listing($this->serial)));
        self::assertSame(
            'not-paired',
            $this->refusal(fn () => $this->link->offerReturn($this->serial, '9.3.0', Inventory::of([], []))),
        );

        $this->do(Work::Pair);
        self::assertGreaterThan(0, $this->link->read($this->serial)->counts()['photos']);
    }

    #[DataProvider('links')]
    public function test_the_listing_is_what_the_items_are(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $listing = $this->link->listing($this->serial);
        foreach ($listing->items->first(8) as $item) {
            self::assertSame($item->sha256, hash('sha256', $this->bytes($item)));
        }

        self::assertSame($this->link->read($this->serial)->counts()['photos'], $listing->counts()['photos']);
        self::assertArrayNotHasKey('saved-passwords', $listing->counts());
        self::assertSame(1, $this->link->listing($this->serial, Encryption::OpenPgp)->counts()['saved-passwords']);
        $secret = $this->link->listing($this->serial, Encryption::OpenPgp)->items->ofKind('saved-passwords')->current();
        self::assertSame('encrypted-only', $this->refusal(fn () => $this->link->open($this->serial, $secret)));
        self::assertSame(
            $secret->sha256,
            hash(
                'sha256',
                (string) stream_get_contents($this->link->open($this->serial, $secret, Encryption::OpenPgp)),
            ),
        );
        self::assertSame(
            'no-such-item',
            json_decode((string) $this->raw('GET', '/content/photos/none.jpg')->getBody(), true)['code'],
        );
        self::assertSame(
            'unsafe-path',
            json_decode((string) $this->raw('GET', '/content/photos/..%2F..%2Fstate')->getBody(), true)['code'],
        );
    }

    /** @return iterable<string, array{string}> */
    public static function linksWithAndWithoutBatches(): iterable
    {
        yield from self::links();
        yield 'a link that gives items one by one only' => ['python --no-batch'];
        yield 'a link that breaks off when it is asked for many' => ['python --batch-breaks'];
    }

    #[DataProvider('linksWithAndWithoutBatches')]
    public function test_many_items_come_in_the_order_in_which_they_are_asked_for(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $items = iterator_to_array($this->link->listing($this->serial)->items);
        $gone = new Item('notes', 'gone/ö 1.md', 10, str_repeat('0', 64), Rfc3339::parse('2026-11-01T12:00:00Z'));
        $large = new Item('photos', $items[0]->path, 5_000_000, $items[0]->sha256, $items[0]->modifiedAt);
        $asked = [...array_slice($items, 0, 70), $gone, $large, ...array_slice($items, 70)];
        $came = [];
        foreach ($this->link->fetch($this->serial, $asked, Encryption::None, static fn () => null) as $fetched) {
            $text = $fetched->stream === null ? $fetched->text : stream_get_contents($fetched->stream);
            $came[] = [$fetched->item->key(), is_string($text) ? hash('sha256', $text) : null];
        }

        $wanted = array_map(static fn (Item $i): array => [$i->key(), $i === $gone ? null : $i->sha256], $asked);
        self::assertSame($wanted, $came);
        $fetch = fn (Item ...$i): array => iterator_to_array(
            $this->link->fetch($this->serial, $i, Encryption::None, static fn () => null),
        );
        $secret = new Item('saved-passwords', 'all.bin', 10, str_repeat('0', 64), $gone->modifiedAt);
        self::assertSame('encrypted-only', $this->refusal(fn () => $fetch($secret)));
        self::assertSame([], $fetch());
    }

    #[DataProvider('linksWithAndWithoutBatches')]
    public function test_items_are_not_fetched_from_a_device_that_did_not_say_yes(string $which): void
    {
        $this->use($which);
        $item = new Item('notes', 'one.md', 10, str_repeat('0', 64), Rfc3339::parse('2026-11-01T12:00:00Z'));
        $fetch = fn (string $serial): array => iterator_to_array(
            $this->link->fetch($serial, [$item], Encryption::None, static fn () => null),
        );

        self::assertSame('not-paired', $this->refusal(fn () => $fetch($this->serial)));
        self::assertSame('no-such-device', $this->refusal(fn () => $fetch('SKL-9999')));
    }

    #[DataProvider('links')]
    public function test_recovery_mode_is_entered_and_left_without_a_loss(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $before = $this->link->read($this->serial)->counts();
        self::assertSame('not-in-recovery-mode', $this->refusal(fn () => $this->link->nonce($this->serial)));
        self::assertSame(
            'not-in-recovery-mode',
            $this->refusal(fn () => $this->link->start($this->serial, Work::LeaveRecovery)),
        );
        $once = $this->link->start($this->serial, Work::EnterRecovery);
        try {
            self::assertSame($once->id, $this->link->start($this->serial, Work::EnterRecovery)->id);
        } catch (Declined $e) {
            self::assertSame('not-in-normal-mode', $e->reason, 'it is there already, where this machine is slow');
        }
        $this->finish($once);
        self::assertSame(DeviceMode::Recovery, $this->link->read($this->serial)->mode);
        self::assertNotSame($this->link->nonce($this->serial), $this->link->nonce($this->serial));

        $this->do(Work::LeaveRecovery);
        self::assertSame(
            [DeviceMode::Normal, $before],
            [$this->link->read($this->serial)->mode, $this->link->read($this->serial)->counts()],
        );
    }

    #[DataProvider('links')]
    public function test_a_package_goes_on_where_it_stopped_and_begins_anew_when_asked(string $which): void
    {
        $this->use($which);
        $this->do(Work::EnterRecovery);
        [$file, $sha256] = $this->package('8.7.0');
        $half = intdiv((int) filesize($file), 2);
        $this->raw('PUT', "/packages/{$sha256}?offset=0", substr((string) file_get_contents($file), 0, $half));
        $told = [];
        $this->link->sendPackage($this->serial, $file, $sha256, static function (int $done) use (&$told): void {
            $told[] = $done;
        });
        self::assertGreaterThan($half, $told[0]);
        self::assertSame(filesize($file), end($told));

        self::assertSame(
            ['received' => 3],
            json_decode((string) $this->raw('PUT', "/packages/{$sha256}?offset=0", 'abc')->getBody(), true),
        );
        $this->link->sendPackage($this->serial, $file, $sha256, static fn () => null, true);
        self::assertSame(
            ['received' => filesize($file)],
            json_decode((string) $this->raw('GET', "/packages/{$sha256}")->getBody(), true),
        );
    }

    #[DataProvider('links')]
    public function test_whatever_does_not_fit_is_refused_and_nothing_is_wiped(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $before = $this->link->read($this->serial)->counts();
        $this->do(Work::EnterRecovery);
        [$file, $sha256] = $this->package('8.7.0');
        self::assertSame(
            'package-missing',
            $this->refusal(fn () => $this->link->install($this->serial, 'none', $sha256)),
        );
        $this->link->sendPackage($this->serial, $file, $sha256, static fn () => null);
        $permit = $this->permit('8G210', $sha256);
        $install = fn (string $permit, bool $keep = false): string => $this->refusal(
            fn () => $this->link->install($this->serial, $permit, $sha256, $keep),
        );

        self::assertSame('permit-untrusted', $install('not.a.permit'));
        self::assertSame('permit-untrusted', $install(substr($permit, 0, -8).'AAAAAAAA'));
        self::assertSame(
            'permit-other-device',
            $install($this->permit('8G210', $sha256, ['deviceSerial' => 'SKL-9999'])),
        );
        self::assertSame('permit-other-model', $install($this->permit('8G210', $sha256, ['hardwareId' => 'FN7-1'])));
        self::assertSame('permit-other-nonce', $install($this->permit('8G210', $sha256, ['nonce' => 'old'])));
        self::assertSame('not-accepted-step-down', $install($this->permit('8G210', $sha256), true));
        $this->raw('PUT', "/packages/{$sha256}?offset=0", 'X'.substr((string) file_get_contents($file), 1));
        self::assertSame('package-altered', $install($this->permit('8G210', $sha256)));

        $this->do(Work::LeaveRecovery);
        self::assertSame(
            ['9.3.0', $before],
            [(string) $this->link->read($this->serial)->device->version, $this->link->read($this->serial)->counts()],
        );
    }

    #[DataProvider('links')]
    public function test_an_erase_install_empties_the_device_and_the_data_comes_back(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $listing = $this->link->listing($this->serial);
        $content = array_map($this->bytes(...), iterator_to_array($listing->items));
        $this->do(Work::EnterRecovery);
        $operation = $this->installing('8.7.0', '8G210', false);
        $phases = $this->finish($operation);
        self::assertSame([], array_diff($phases, ['extract', 'verify', 'write', 'restart']));
        $after = $this->link->read($this->serial);
        self::assertSame(
            ['8.7.0', '8G210', false, false, false],
            [
                (string) $after->device->version,
                $after->device->build,
                $after->isPaired(),
                $after->activated,
                $after->setUp,
            ],
        );

        $this->do(Work::Activate);
        $this->do(Work::Pair);
        self::assertSame(
            [1, 0],
            [
                $this->link->read($this->serial)->counts()['esim'],
                $this->link->read($this->serial)->counts()['photos'] ?? 0,
            ],
        );
        self::assertSame(
            'backup-too-new',
            $this->refusal(fn () => $this->link->offerReturn($this->serial, '9.3.0', $listing)),
        );
        $this->bringBack($listing, $content);
        self::assertEquals(
            array_filter($listing->counts()),
            array_filter(array_intersect_key($this->link->listing($this->serial)->counts(), $listing->counts())),
        );
        $about = $this->link->listing($this->serial)->items->find('settings/system/about.json');
        self::assertNotNull($about);
        self::assertStringContainsString('8G210', $this->bytes($about));
        $this->do(Work::SetUp);
        self::assertTrue($this->link->read($this->serial)->setUp);

        $this->do(Work::EnterRecovery);
        $this->finish($this->installing('9.3.0', '9D55', true));
        $up = $this->link->read($this->serial);
        self::assertSame(
            ['9.3.0', true, true, $listing->counts()['photos']],
            [(string) $up->device->version, $up->isPaired(), $up->activated, $up->counts()['photos']],
        );
    }

    #[DataProvider('links')]
    public function test_a_store_that_is_too_new_is_dropped(string $which): void
    {
        $this->use($which);
        $this->do(Work::Pair);
        $listing = $this->link->listing($this->serial);
        $newer = Inventory::of(
            array_map(
                static fn (KindHeader $k): KindHeader => $k->kind === 'messages'
                    ? new KindHeader($k->kind, $k->items, 99)
                    : $k,
                $listing->kinds,
            ),
            $listing->items,
        );
        $content = array_map($this->bytes(...), iterator_to_array($listing->items));
        $this->do(Work::EnterRecovery);
        $this->finish($this->installing('8.7.0', '8G210', false));
        $this->do(Work::Activate);
        $this->do(Work::Pair);
        $this->bringBack($newer, $content);

        $counts = $this->link->read($this->serial)->counts();
        self::assertSame([0, $listing->counts()['photos']], [$counts['messages'] ?? 0, $counts['photos']]);
    }

    #[DataProvider('links')]
    public function test_items_are_brought_in_one_by_one_beside_what_is_there(string $which): void
    {
        $this->use($which);
        self::assertSame('not-paired', $this->refusal(fn () => $this->bringIn('notes', 'kept/pier.md', 'lines')));
        $this->do(Work::Pair);
        $before = $this->link->listing($this->serial);
        $this->bringIn('notes', 'kept/pier.md', 'lines');
        $this->bringIn('notes', 'kept/pier.md', 'lines checked');

        $after = $this->link->listing($this->serial);
        $new = [$after->items->find('notes/kept/pier.md')];
        self::assertNotNull($new[0]);
        self::assertSame(
            [$before->counts()['notes'] + 1, 'lines checked', '2026-11-01T12:00:00Z'],
            [$after->counts()['notes'], $this->bytes($new[0]), Rfc3339::format($new[0]->modifiedAt)],
        );
        self::assertSame(
            'whole-only',
            $this->refusal(fn () => $this->bringIn('app-data', 'tide-table/record-9.bin', 'x')),
        );
        self::assertSame('whole-only', $this->refusal(fn () => $this->bringIn('health', 'steps.bin', 'x')));
        self::assertSame(
            'unsafe-path',
            json_decode((string) $this->raw('PUT', '/content/notes/..%2F..%2Fstate', 'x')->getBody(), true)['code'],
        );
    }

    private function bringIn(string $kind, string $path, string $text): void
    {
        $item = new Item($kind, $path, strlen($text), hash('sha256', $text), Rfc3339::parse('2026-11-01T12:00:00Z'));
        $this->link->bringIn($this->serial, $item, static function (int $most) use (&$text): string {
            [$now, $text] = [substr($text, 0, $most), substr($text, $most)];

            return $now;
        });
    }

    private function use(string $which): void
    {
        $system = self::$system ?? throw new \LogicException('The instance starts before the first test.');
        if ($which === 'rig') {
            $this->serial = 'SKL-0042';
            $address = $system->settings()['DEVICE_LINK'];
            (new Client)->post("{$address}/practice/devices/{$this->serial}/reset", ['json' => ['small' => true]]);
        } else {
            $this->serial = 'ALT-0001';
            $address = 'http://127.0.0.1:'.RunningSystem::port(self::SECOND_PORT);
            $this->startSecond(array_slice(explode(' ', $which), 1));
        }
        $this->link = new HttpDeviceLink(new JsonClient(new Factory, $address, 'The device link', self::thisMachine()));
    }

    /**
     * A new one for each test, with its device as it was made.
     *
     * @param  list<string>  $words
     */
    private function startSecond(array $words): void
    {
        self::$second?->stop(1);
        self::$second = new Process(
            [
                'python3',
                RunningSystem::root().'/tests/Support/second_link.py',
                (string) RunningSystem::port(self::SECOND_PORT),
                $this->vendorAddress(),
                ...$words,
            ],
            null,
            null,
            null,
            null,
        );
        self::$second->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', RunningSystem::port(self::SECOND_PORT)) !== false,
            15,
            'the second link did not start: '.self::$second->getErrorOutput(),
        );
    }

    private function installing(string $version, string $build, bool $keepData): Operation
    {
        [$file, $sha256] = $this->package($version);
        $this->link->sendPackage($this->serial, $file, $sha256, static fn () => null);

        return $this->link->install($this->serial, $this->permit($build, $sha256), $sha256, $keepData);
    }

    /** @param  list<string>  $content */
    private function bringBack(Inventory $inventory, array $content): void
    {
        $return = $this->link->offerReturn($this->serial, '8.7.0', $inventory);
        self::assertSame($return, $this->link->offerReturn($this->serial, '8.7.0', $inventory));
        self::assertSame(
            'return-incomplete',
            $this->refusal(fn () => $this->link->commitReturn($this->serial, $return)),
        );
        self::assertSame('no-such-return', $this->refusal(fn () => $this->link->returned($this->serial, 'none')));
        $give = static function (callable $send) use ($inventory, $content): void {
            foreach ($inventory->items as $i => $item) {
                $left = $content[$i];
                $send($item, static function (int $most) use (&$left): string {
                    [$now, $left] = [substr($left, 0, $most), substr($left, $most)];

                    return $now;
                });
            }
        };
        $this->link->sendItems($this->serial, $return, $give, static fn () => null);
        self::assertEqualsCanonicalizing(
            array_map(static fn (Item $i): string => $i->key(), iterator_to_array($inventory->items)),
            [...$this->link->returned($this->serial, $return)],
        );
        $this->finish($this->link->commitReturn($this->serial, $return));
    }

    private function bytes(Item $item): string
    {
        return (string) stream_get_contents($this->link->open($this->serial, $item));
    }

    private function do(Work $work): void
    {
        $this->finish($this->link->start($this->serial, $work));
    }

    /** @return list<string> the phases that were seen */
    private function finish(Operation $operation): array
    {
        $phases = [];
        RunningSystem::waitUntil(function () use ($operation, &$phases): bool {
            $now = $this->link->operation($this->serial, $operation->id);
            $phases[] = $now->phase->kept();

            return $now->isOver();
        }, 15, "{$operation->kind} did not end");
        $end = $this->link->operation($this->serial, $operation->id);
        self::assertSame(['done', 1.0, null], [$end->state, $end->progress, $end->error]);

        return array_values(array_unique($phases));
    }

    /** @return array{string, string} the file of the practice vendor's package for this model, and its digest */
    private function package(string $version): array
    {
        $this->vendor()->signedCatalogue(); // has it made where it was not yet
        $file = RunningSystem::package('brightmere', "fn7_{$version}_*.fwp");

        return [$file, (string) hash_file('sha256', $file)];
    }

    /** @param  array<string, string>  $differs */
    private function permit(string $build, string $sha256, array $differs = []): string
    {
        $fields = $differs + [
            'deviceSerial' => $this->serial,
            'hardwareId' => 'FN7-2',
            'build' => $build,
            'packageSha256' => $sha256,
            'nonce' => $this->link->nonce($this->serial),
        ];

        return $this->vendor()->permit(new PermitRequest(...$fields));
    }

    private function vendor(): HttpVendorService
    {
        return new HttpVendorService(
            new JsonClient(new Factory, $this->vendorAddress(), 'The vendor', self::thisMachine()),
            $this->vendorAddress(),
        );
    }

    private function vendorAddress(): string
    {
        return (self::$system?->settings()['VENDOR_ADDRESS'] ?? '').'/brightmere';
    }

    private function raw(string $method, string $path, string $body = ''): \Psr\Http\Message\ResponseInterface
    {
        $address =
            $this->serial === 'ALT-0001'
                ? 'http://127.0.0.1:'.RunningSystem::port(self::SECOND_PORT)
                : self::$system?->settings()['DEVICE_LINK'];

        return (new Client(['http_errors' => false]))->request($method, "{$address}/devices/{$this->serial}{$path}", [
            'body' => $body,
            'headers' => ['X-Modified-At' => '2026-11-01T12:00:00Z'],
        ]);
    }

    /** @param  callable(): mixed  $call */
    private function refusal(callable $call): string
    {
        try {
            $call();
        } catch (Declined $e) {
            self::assertNotSame('', $e->getMessage());

            return $e->reason;
        }
        self::fail('It was not refused.');
    }

    private static function thisMachine(): AllowedAddresses
    {
        return AllowedAddresses::named(AddressList::ofText('127.0.0.1'));
    }
}
