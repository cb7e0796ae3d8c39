<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\FetchedItem;
use App\Ports\Operation;
use App\Ports\PortReading;
use App\Ports\Work;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindHeader;
use JadeStep\Core\Copied;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Job\Phase;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Route\BuildName;

/**
 * Devices in memory, whose work is done as soon as it is asked for. A device holds what it was plugged in with; what is
 * put back on it stands beside that under the same name.
 */
final class FakeDeviceLink implements DeviceLink
{
    /** @var array<string, DeviceReading> by serial */
    private array $devices = [];

    /** @var array<string, array<string, string>> bytes by kind/path, by serial */
    private array $contents = [];

    /** @var array<string, array<string, string>> what was sent of a return, by its name */
    private array $returns = [];

    /** @var array<string, BuildName> what a device runs after a package, by the package's digest */
    private array $builds = [];

    /** @var (\Closure(Item): resource)|null gives the bytes of an item in another way than at once */
    private ?\Closure $open = null;

    /** @param  array<string, string>  $contents  bytes by kind/path */
    public function plug(Device $device, array $contents = []): void
    {
        $this->contents[$device->serial] = $contents;
        $this->devices[$device->serial] = new DeviceReading(
            $device->holding(self::stock($contents)),
            null,
            DeviceMode::Normal,
            true,
            true,
            null,
        );
    }

    public function unplug(string $serial): void
    {
        unset($this->devices[$serial]);
    }

    public function runsAfter(string $packageSha256, BuildName $build): void
    {
        $this->builds[$packageSha256] = $build;
    }

    /** @param  (\Closure(Item): resource)|null  $open  null for at once */
    public function openItemsBy(?\Closure $open): void
    {
        $this->open = $open;
    }

    /** @return array<string, string> what the device holds, by kind/path */
    public function contents(string $serial): array
    {
        return $this->contents[$serial] ?? [];
    }

    public function ports(): array
    {
        $at = 0;

        return array_values(array_map(static function (DeviceReading $r) use (&$at): PortReading {
            $at++;

            return new PortReading(
                (string) $at,
                $r->device->serial,
                $r->device->modelName,
                (string) $r->device->version,
                $r->mode,
            );
        }, $this->devices));
    }

    public function read(string $serial): DeviceReading
    {
        return $this->devices[$serial] ?? throw new Declined('no-such-device', 'There is no such device.', 404);
    }

    public function start(string $serial, Work $work): Operation
    {
        match ($work) {
            Work::Pair => $this->change($serial, paired: true),
            Work::EnterRecovery => $this->set($serial, mode: DeviceMode::Recovery),
            Work::LeaveRecovery => $this->set($serial, mode: DeviceMode::Normal),
            Work::Activate => $this->set($serial, activated: true),
            Work::SetUp => $this->set($serial, setUp: true),
        };

        return self::done($work->value);
    }

    public function operation(string $serial, string $id): Operation
    {
        $this->read($serial);

        return self::done($id);
    }

    public function listing(string $serial, Encryption $for = Encryption::None): Inventory
    {
        $this->assertPaired($serial);
        $items = [];
        foreach ($this->contents[$serial] as $key => $bytes) {
            $items[] = self::item($key, $bytes);
        }
        $counts = array_count_values(array_column($items, 'kind'));
        $headers = array_map(
            static fn (string $kind, int $many): KindHeader => new KindHeader($kind, $many, null),
            array_keys($counts),
            $counts,
        );

        return Inventory::of($headers, $items);
    }

    public function open(string $serial, Item $item, Encryption $for = Encryption::None)
    {
        $this->assertPaired($serial);
        $bytes = $this->contents[$serial][$item->key()] ?? throw new Declined('no-such-item', 'It is gone.', 404);

        return $this->open === null ? self::stream($bytes) : ($this->open)($item);
    }

    public function fetch(string $serial, iterable $items, Encryption $for, callable $waiting): \Generator
    {
        foreach ($items as $item) {
            try {
                yield FetchedItem::streamed($item, $this->open($serial, $item, $for));
            } catch (Declined $e) {
                $e->reason === 'no-such-item' || throw $e;
                yield FetchedItem::gone($item);
            }
        }
    }

    public function nonce(string $serial): string
    {
        return hash('sha256', "nonce of {$this->read($serial)->device->serial}");
    }

    public function sendPackage(
        string $serial,
        string $file,
        string $sha256,
        callable $progress,
        bool $anew = false,
    ): void {
        $this->read($serial);
        $progress((int) filesize($file), (int) filesize($file));
    }

    public function install(string $serial, string $permit, string $packageSha256, bool $keepData = false): Operation
    {
        $this->read($serial);
        $build = $this->builds[$packageSha256] ?? throw new Declined('wrong-package', 'It is for another model.', 409);
        if (! $keepData) {
            $this->contents[$serial] = [];
        }
        $this->change(
            $serial,
            version: $build->version,
            build: $build->build,
            kinds: self::stock($this->contents[$serial]),
            paired: $keepData,
        );
        $this->set($serial, mode: DeviceMode::Normal, activated: $keepData, setUp: $keepData);

        return self::done('install');
    }

    public function offerReturn(string $serial, string $declaredVersion, Inventory $inventory): string
    {
        $this->assertPaired($serial);
        $version = (string) $this->read($serial)->device->version;
        $declaredVersion === $version
            || throw new Declined('newer-than-installed', "It declares {$declaredVersion}; this runs {$version}.", 409);
        $this->returns["{$serial} {$declaredVersion}"] ??= [];

        return "{$serial} {$declaredVersion}";
    }

    public function returned(string $serial, string $return): iterable
    {
        return array_map(strval(...), array_keys($this->returns[$return] ?? []));
    }

    public function sendItems(string $serial, string $return, callable $give, callable $waiting): void
    {
        $give(function (Item $item, callable $read) use ($return): void {
            $this->returns[$return][$item->key()] = self::all($read);
        });
    }

    public function commitReturn(string $serial, string $return): Operation
    {
        $this->contents[$serial] = ($this->returns[$return] ?? []) + $this->contents[$serial];
        $this->change($serial, kinds: self::stock($this->contents[$serial]));

        return self::done('return');
    }

    public function bringIn(string $serial, Item $item, callable $read): void
    {
        $this->assertPaired($serial);
        $this->contents[$serial][$item->key()] = self::all($read);
        $this->change($serial, kinds: self::stock($this->contents[$serial]));
    }

    private function assertPaired(string $serial): void
    {
        $this->read($serial)->device->paired === true
            || throw new Declined('not-paired', 'The device has not said yes to this computer.', 403);
    }

    private function change(string $serial, mixed ...$facts): void
    {
        $this->set($serial, device: Copied::with($this->read($serial)->device, ...$facts));
    }

    private function set(string $serial, mixed ...$facts): void
    {
        $this->devices[$serial] = Copied::with($this->read($serial), ...$facts);
    }

    private static function done(string $work): Operation
    {
        return new Operation($work, $work, 'done', Phase::of(PhaseCode::Asking), 1.0, false, null);
    }

    private static function item(string $key, string $bytes): Item
    {
        [$kind, $path] = explode('/', $key, 2);
        $day = new \DateTimeImmutable('2026-11-01T12:00:00Z');

        return new Item($kind, $path, strlen($bytes), hash('sha256', $bytes), $day);
    }

    /**
     * @param  array<string, string>  $contents
     * @return list<KindStock>
     */
    private static function stock(array $contents): array
    {
        $items = [];
        foreach ($contents as $key => $bytes) {
            $items[explode('/', $key, 2)[0]][] = strlen($bytes);
        }

        return array_map(
            static fn (string $kind, array $sizes): KindStock => new KindStock(
                Kind::from($kind),
                count($sizes),
                array_sum($sizes),
                new \DateTimeImmutable('2026-11-01T12:00:00Z'),
                null,
            ),
            array_keys($items),
            $items,
        );
    }

    /** @return resource */
    private static function stream(string $bytes)
    {
        $stream = fopen('php://memory', 'r+b');
        $stream !== false || throw new \RuntimeException('No memory.');
        fwrite($stream, $bytes);
        rewind($stream);

        return $stream;
    }

    /** @param  callable(int): string  $read */
    private static function all(callable $read): string
    {
        $text = '';
        while (($piece = $read(65_536)) !== '') {
            $text .= $piece;
        }

        return $text;
    }
}
