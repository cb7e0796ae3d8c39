<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\Operation;
use App\Ports\PortReading;
use App\Ports\Work;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Phase;
use JadeStep\Core\Job\WayBack\CloudFetch;

/** The device link over HTTP. */
final readonly class HttpDeviceLink implements DeviceLink
{
    /** The Bench waits for it; a link that takes longer counts as silent. */
    private const PORTS_SECONDS = 4;

    private const PACKAGE_CHUNK = 2_097_152;

    /** A listing of which so many pieces in a row do not come within the client's limit is given up. */
    private const SILENT_PIECES = 12;

    public function __construct(private JsonClient $client)
    {
    }

    public function ports(): array
    {
        try {
            $told = Fields::of($this->client->get('/ports', self::PORTS_SECONDS)->json());
        } catch (Declined $e) {
            throw LinkLost::to('The device link', $e); // it is asked of no device: a link that says no is not well now
        }

        $plugged = $told->each('ports', static function (Fields $port): PortReading {
            $device = $port->maybeIn('device');

            return $device === null
                ? new PortReading($port->string('port'), null, null, null, null)
                : PortReading::ofFields($device->with('port', $port->string('port')));
        });
        $near = ! $told->has('near') ? [] : $told->each(
            'near',
            static fn (Fields $device): PortReading => PortReading::ofFields(
                $device->with('port', "near {$device->string('serial')}")->with('byAir', true),
            ),
        );

        return [...$plugged, ...$near];
    }

    public function read(string $serial): DeviceReading
    {
        $told = Fields::of($this->client->get($this->at($serial))->json());
        $device = DeviceDocument::read($told);
        if ($device->serial !== $serial) {
            throw new Declined(
                'other-device',
                "Another device, {$device->serial}, answers in the place of {$serial}. Nothing is done to it.",
                409,
            );
        }
        $operation = $told->maybeIn('operation');

        return new DeviceReading(
            $device,
            $told->maybeString('imei'),
            $told->enum('mode', DeviceMode::class),
            $told->bool('activated'),
            $told->bool('setUp'),
            $operation === null ? null : self::operationOf($operation),
            null,
            $told->maybeBool('practice') ?? false,
            self::cloudFetch($told->maybeIn('cloudReturn')),
        );
    }

    private static function cloudFetch(?Fields $told): ?CloudFetch
    {
        return $told === null
            ? null
            : new CloudFetch($told->string('state') === 'refused', $told->maybeString('words') ?? '');
    }

    public function start(string $serial, Work $work): Operation
    {
        return self::operationOf(
            Fields::of($this->client->post($this->at($serial, 'operations'), ['kind' => $work->value])->json()),
        );
    }

    public function operation(string $serial, string $id): Operation
    {
        return self::operationOf(Fields::of($this->client->get($this->at($serial, 'operations', $id))->json()));
    }

    public function listing(string $serial, Encryption $for = Encryption::None): Inventory
    {
        try {
            return Inventory::parse($this->lines($this->at($serial, 'content').self::for($for)));
        } catch (UnreadableInventory $e) {
            throw new LinkLost('The device\'s listing could not be used: '.$e->getMessage(), 0, $e);
        }
    }

    /** @return \Generator<string> read as they come */
    private function lines(string $path): \Generator
    {
        $stream = $this->client->stream($path)[0];
        $line = '';
        $silent = 0;
        try {
            while (! feof($stream)) {
                $piece = fgets($stream);
                $silent = $piece === false ? $silent + 1 : 0;
                $silent <= self::SILENT_PIECES || throw LinkLost::to($this->client->name);
                $line .= (string) $piece;
                if (str_ends_with($line, "\n")) {
                    yield rtrim($line, "\r\n");
                    $line = '';
                }
            }
            yield $line;
        } finally {
            fclose($stream);
        }
    }

    public function open(string $serial, Item $item, Encryption $for = Encryption::None)
    {
        return $this->client->stream($this->at($serial, 'content', $item->kind, $item->path).self::for($for))[0];
    }

    public function fetch(string $serial, iterable $items, Encryption $for, callable $waiting): \Generator
    {
        return (new ItemsInFlight($this->client, $this->at($serial, 'content'), self::for($for)))
            ->fetch($items, $waiting);
    }

    public function nonce(string $serial): string
    {
        return Fields::of($this->client->post($this->at($serial, 'nonce'))->json())->string('nonce');
    }

    public function sendPackage(
        string $serial,
        string $file,
        string $sha256,
        callable $progress,
        bool $anew = false,
    ): void {
        $path = $this->at($serial, 'packages', $sha256);
        $whole = (int) filesize($file);
        $sent = $anew ? 0 : Fields::of($this->client->get($path)->json())->int('received');
        $in = fopen($file, 'rb');
        if ($in === false) {
            throw new \RuntimeException('The package cannot be opened.');
        }
        while ($sent < $whole) {
            fseek($in, $sent);
            $piece = (string) fread($in, self::PACKAGE_CHUNK);
            $sent = Fields::of($this->client->put("{$path}?offset={$sent}", $piece)->json())->int('received');
            $progress($sent, $whole);
        }
        fclose($in);
    }

    public function install(string $serial, string $permit, string $packageSha256, bool $keepData = false): Operation
    {
        return self::operationOf(
            Fields::of(
                $this->client
                    ->post($this->at($serial, 'installs'), [
                        'permit' => $permit,
                        'packageSha256' => $packageSha256,
                        'keepData' => $keepData,
                    ])
                    ->json(),
            ),
        );
    }

    public function offerReturn(string $serial, string $declaredVersion, Inventory $inventory): string
    {
        $kinds = array_map(
            static fn (KindHeader $k): array => [
                'kind' => $k->kind,
                'items' => $k->items,
                'storeSchema' => $k->storeSchema,
            ],
            $inventory->kinds,
        );

        $offer = ['declaredVersion' => $declaredVersion, 'kinds' => $kinds];

        return Fields::of($this->client->post($this->at($serial, 'returns'), $offer)->json())->string('return');
    }

    public function returned(string $serial, string $return): iterable
    {
        $stream = $this->client->stream($this->at($serial, 'returns', $return))[0];

        return (static function () use ($stream): \Generator {
            try {
                yield from NamesFromJson::in($stream, 'items');
            } catch (\UnexpectedValueException $e) {
                throw new LinkLost("What the device has could not be read: {$e->getMessage()}", 0, $e);
            }
        })();
    }

    public function sendItems(string $serial, string $return, callable $give, callable $waiting): void
    {
        $out = new ItemsGoingOut($this->client, $this->at($serial, 'returns', $return, 'content'), $waiting);
        $give($out->put(...));
        $out->end();
    }

    public function bringIn(string $serial, Item $item, callable $read): void
    {
        $out = new ItemsGoingOut($this->client, $this->at($serial, 'content'), static fn () => null);
        $out->put($item, $read);
        $out->end();
    }

    public function commitReturn(string $serial, string $return): Operation
    {
        return self::operationOf(
            Fields::of($this->client->post($this->at($serial, 'returns', $return, 'commit'))->json()),
        );
    }

    private static function for(Encryption $encryption): string
    {
        return $encryption === Encryption::None ? '' : '?backup=encrypted';
    }

    private function at(string $serial, string ...$parts): string
    {
        return '/devices/'.JsonClient::path($serial, ...$parts);
    }

    private static function operationOf(Fields $o): Operation
    {
        return new Operation(
            $o->string('id'),
            $o->string('kind'),
            $o->string('state'),
            Phase::told($o->string('phase')),
            $o->float('progress'),
            $o->bool('doNotDisturb'),
            $o->maybeString('error'),
            $o->maybeString('wants'),
        );
    }
}
