<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use App\Ports\Operation;
use App\Ports\PortReading;
use App\Ports\Work;
use GuzzleHttp\Psr7\PumpStream;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Time\Rfc3339;

/** The device link over HTTP. */
final readonly class HttpDeviceLink implements DeviceLink
{
    /** The Bench waits for it; a link that takes longer counts as silent. */
    private const PORTS_SECONDS = 4;

    private const PACKAGE_CHUNK = 2_097_152;

    public function __construct(private JsonClient $client)
    {
    }

    public function ports(): array
    {
        return array_map(static fn (array $p): PortReading => new PortReading(
            (string) $p['port'], $p['device']['serial'] ?? null, $p['device']['modelName'] ?? null, $p['device']['version'] ?? null, $p['device']['mode'] ?? null,
        ), $this->client->get('/ports', self::PORTS_SECONDS)->json('ports'));
    }

    public function read(string $serial): DeviceReading
    {
        $told = $this->client->get($this->at($serial))->json();
        if ($told['serial'] !== $serial) {
            throw new Refused('other-device', "Another device, {$told['serial']}, answers in the place of {$serial}. Nothing is done to it.", 409);
        }
        $facts = array_diff_key($told, array_flip(['imei', 'mode', 'activated', 'setUp', 'operation', 'bootable']));

        return new DeviceReading(
            $told['serial'], $told['imei'], $told['mode'], $told['version'], $told['build'], $told['paired'], $told['activated'], $told['setUp'],
            $told['operation'] === null ? null : self::operationOf($told['operation']),
            $facts,
            $told['bootable'],
        );
    }

    public function start(string $serial, Work $work): Operation
    {
        return self::operationOf($this->client->post($this->at($serial, 'operations'), ['kind' => $work->value])->json());
    }

    public function operation(string $serial, string $id): Operation
    {
        return self::operationOf($this->client->get($this->at($serial, 'operations', $id))->json());
    }

    public function listing(string $serial, Encryption $for = Encryption::None): Inventory
    {
        try {
            return Inventory::parse(explode("\n", $this->client->get($this->at($serial, 'content').self::for($for))->body()));
        } catch (UnreadableInventory $e) {
            throw new LinkLost('The device\'s listing could not be used: '.$e->getMessage(), 0, $e);
        }
    }

    public function open(string $serial, Item $item, Encryption $for = Encryption::None)
    {
        return $this->client->stream($this->at($serial, 'content', $item->kind, $item->path).self::for($for))[0];
    }

    public function nonce(string $serial): string
    {
        return $this->client->post($this->at($serial, 'nonce'))->json('nonce');
    }

    public function sendPackage(string $serial, string $file, string $sha256, callable $progress, bool $anew = false): void
    {
        $path = $this->at($serial, 'packages', $sha256);
        $whole = (int) filesize($file);
        $sent = $anew ? 0 : (int) $this->client->get($path)->json('received');
        $in = fopen($file, 'rb') ?: throw new \RuntimeException('The package cannot be opened.');
        while ($sent < $whole) {
            fseek($in, $sent);
            $sent = (int) $this->client->put("{$path}?offset={$sent}", (string) fread($in, self::PACKAGE_CHUNK))->json('received');
            $progress($sent, $whole);
        }
        fclose($in);
    }

    public function install(string $serial, string $permit, string $packageSha256, bool $keepData = false): Operation
    {
        return self::operationOf($this->client->post($this->at($serial, 'installs'), ['permit' => $permit, 'packageSha256' => $packageSha256, 'keepData' => $keepData])->json());
    }

    public function offerReturn(string $serial, string $declaredVersion, Inventory $inventory): string
    {
        $kinds = array_map(static fn (KindHeader $k): array => ['kind' => $k->kind, 'items' => $k->items, 'storeSchema' => $k->storeSchema], $inventory->kinds);

        return $this->client->post($this->at($serial, 'returns'), ['declaredVersion' => $declaredVersion, 'kinds' => $kinds])->json('return');
    }

    public function returned(string $serial, string $return): array
    {
        return $this->client->get($this->at($serial, 'returns', $return))->json('items');
    }

    public function sendItem(string $serial, string $return, Item $item, callable $read): void
    {
        $this->put($this->at($serial, 'returns', $return, 'content', $item->kind, $item->path), $item, $read);
    }

    public function bringIn(string $serial, Item $item, callable $read): void
    {
        $this->put($this->at($serial, 'content', $item->kind, $item->path), $item, $read);
    }

    /** @param  callable(int): string  $read */
    private function put(string $address, Item $item, callable $read): void
    {
        $this->client->put(
            $address,
            new PumpStream(static function (int $most) use ($read): string|false {
                $text = $read($most);

                return $text === '' ? false : $text;
            }, ['size' => $item->bytes]),
            ['X-Modified-At' => Rfc3339::format($item->modifiedAt)],
        );
    }

    public function commitReturn(string $serial, string $return): Operation
    {
        return self::operationOf($this->client->post($this->at($serial, 'returns', $return, 'commit'))->json());
    }

    private static function for(Encryption $encryption): string
    {
        return $encryption === Encryption::None ? '' : '?backup=encrypted';
    }

    private function at(string $serial, string ...$parts): string
    {
        $encode = static fn (string $part): string => implode('/', array_map(rawurlencode(...), explode('/', $part)));

        return '/devices/'.implode('/', array_map($encode, [$serial, ...array_values($parts)]));
    }

    /** @param  array<string, mixed>  $o */
    private static function operationOf(array $o): Operation
    {
        return new Operation($o['id'], $o['kind'], $o['state'], $o['phase'], (float) $o['progress'], $o['doNotDisturb'], $o['error'], $o['wants']);
    }
}
