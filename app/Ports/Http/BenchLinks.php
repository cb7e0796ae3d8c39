<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\LinkAddresses;
use App\Ports\Operation;
use App\Ports\PortReading;
use App\Ports\Work;
use Illuminate\Http\Client\Factory;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;

/**
 * The device links of all benches as one. A device is asked for where it was last seen, and then at the others, so
 * that it may be carried from bench to bench; it is named by its serial at each of them.
 */
final class BenchLinks implements DeviceLink
{
    /** @var array<string, int> the bench where a device was last seen, by serial */
    private array $seenAt = [];

    public function __construct(private readonly Factory $http, private readonly LinkAddresses $addresses)
    {
    }

    public function ports(): array
    {
        $ports = [];
        $lost = null;
        foreach ($this->all() as $id => $link) {
            try {
                foreach ($link->ports() as $p) {
                    $ports[] = $p->at($id);
                }
            } catch (LinkLost $lost) {
                // the ports of the other benches are told all the same
            }
        }

        return $lost !== null && $ports === [] ? throw $lost : $ports;
    }

    /**
     * @return list<PortReading>
     *
     * @throws LinkLost
     */
    public function portsOf(int $benchId): array
    {
        return ($this->all()[$benchId] ?? throw new LinkLost('There is no such bench.'))->ports();
    }

    public function read(string $serial): DeviceReading
    {
        $reading = $this->on($serial, static fn (DeviceLink $l): DeviceReading => $l->read($serial));

        return isset($this->seenAt[$serial]) ? $reading->at($this->seenAt[$serial]) : $reading;
    }

    public function start(string $serial, Work $work): Operation
    {
        return $this->on($serial, static fn (DeviceLink $l): Operation => $l->start($serial, $work));
    }

    public function operation(string $serial, string $id): Operation
    {
        return $this->on($serial, static fn (DeviceLink $l): Operation => $l->operation($serial, $id));
    }

    public function listing(string $serial, Encryption $for = Encryption::None): Inventory
    {
        return $this->on($serial, static fn (DeviceLink $l): Inventory => $l->listing($serial, $for));
    }

    public function open(string $serial, Item $item, Encryption $for = Encryption::None)
    {
        return $this->on($serial, static fn (DeviceLink $l) => $l->open($serial, $item, $for));
    }

    public function fetch(string $serial, iterable $items, Encryption $for, callable $waiting): \Generator
    {
        return $this->lastOf($serial)->fetch($serial, $items, $for, $waiting);
    }

    public function nonce(string $serial): string
    {
        return $this->on($serial, static fn (DeviceLink $l): string => $l->nonce($serial));
    }

    public function sendPackage(
        string $serial,
        string $file,
        string $sha256,
        callable $progress,
        bool $anew = false,
    ): void {
        $this->on($serial, static fn (DeviceLink $l) => $l->sendPackage($serial, $file, $sha256, $progress, $anew));
    }

    public function install(string $serial, string $permit, string $packageSha256, bool $keepData = false): Operation
    {
        return $this->on(
            $serial,
            static fn (DeviceLink $l): Operation => $l->install($serial, $permit, $packageSha256, $keepData),
        );
    }

    public function offerReturn(string $serial, string $declaredVersion, Inventory $inventory): string
    {
        return $this->on(
            $serial,
            static fn (DeviceLink $l): string => $l->offerReturn($serial, $declaredVersion, $inventory),
        );
    }

    public function returned(string $serial, string $return): iterable
    {
        return $this->on($serial, static fn (DeviceLink $l): iterable => $l->returned($serial, $return));
    }

    public function sendItems(string $serial, string $return, callable $give, callable $waiting): void
    {
        $this->lastOf($serial)->sendItems($serial, $return, $give, $waiting);
    }

    public function bringIn(string $serial, Item $item, callable $read): void
    {
        $this->on($serial, static fn (DeviceLink $l) => $l->bringIn($serial, $item, $read));
    }

    public function commitReturn(string $serial, string $return): Operation
    {
        return $this->on($serial, static fn (DeviceLink $l): Operation => $l->commitReturn($serial, $return));
    }

    /** Where the device was just asked for: what goes on for long is not begun anew elsewhere. */
    private function lastOf(string $serial): DeviceLink
    {
        if (! isset($this->seenAt[$serial])) {
            $this->read($serial);
        }

        return $this->all()[$this->seenAt[$serial] ?? 0] ?? throw new LinkLost('Its bench is not set up any more.');
    }

    /**
     * Only where a bench says that it has no such device is another asked; one that is silent may have it.
     *
     * @template T
     *
     * @param  callable(DeviceLink): T  $ask
     * @return T
     */
    private function on(string $serial, callable $ask): mixed
    {
        $links = $this->all();
        $first = $this->seenAt[$serial] ?? null;
        $order = $first !== null && isset($links[$first]) ? [$first => $links[$first]] + $links : $links;
        $why = null;
        foreach ($order as $id => $link) {
            try {
                $answer = $ask($link);
                $this->seenAt[$serial] = $id;

                return $answer;
            } catch (Declined $e) {
                $e->reason === 'no-such-device' || throw $e;
                $why ??= $e;
            } catch (LinkLost $e) {
                if ($id === $first) {
                    throw $e; // it was there a moment ago: asked again, not looked for elsewhere
                }
                $why = $e;
            }
        }
        unset($this->seenAt[$serial]);

        throw $why ?? new LinkLost('No bench is set up. Add one in Settings.');
    }

    /** @return array<int, DeviceLink> by bench */
    private function all(): array
    {
        $links = [];
        foreach ($this->addresses->all() as $id => $bench) {
            $links[$id] = new HttpDeviceLink(
                new JsonClient(
                    $this->http,
                    $bench->address,
                    "The device link of {$bench->name}",
                    AllowedAddresses::ofLinks(),
                ),
            );
        }

        return $links;
    }
}
