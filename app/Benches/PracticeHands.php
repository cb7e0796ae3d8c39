<?php

declare(strict_types=1);

namespace App\Benches;

use App\Models\Bench;
use App\Models\Vendor;
use App\Ports\Exception\LinkLost;
use App\Ports\PracticeRig;
use App\Refusal\Refusal;

/** Reaches the practice hands of the stand-ins behind benches and vendors. A real bench has none, and shows none. */
final readonly class PracticeHands
{
    private const HANDS = ['port', 'keys', 'answers', 'faults', 'state', 'reset'];

    public function __construct(private PracticeRig $rig)
    {
    }

    /** @return array{benches: list<array<string, mixed>>, vendors: list<array<string, mixed>>} those with practice hands, and those that do not answer */
    public function shown(): array
    {
        $look = function (string $address): array {
            try {
                return ['link' => 'up', 'practice' => $this->rig->shown($address)];
            } catch (LinkLost) {
                return ['link' => 'silent', 'practice' => null];
            }
        };
        $benches = Bench::query()->get()->sortBy('id')->map(static fn (Bench $b): array => ['id' => $b->id, 'name' => $b->name] + $look($b->address()));
        $vendors = Vendor::query()->get()->filter(static fn (Vendor $v): bool => $v->address !== null)->map(static fn (Vendor $v): array => ['id' => $v->id, 'name' => $v->name] + $look((string) $v->address));
        $has = static fn (array $at): bool => $at['practice'] !== null || $at['link'] === 'silent';

        return ['benches' => array_values($benches->filter($has)->all()), 'vendors' => array_values($vendors->filter($has)->all())];
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function atDevice(Bench $bench, string $serial, string $hand, array $body): array
    {
        in_array($hand, self::HANDS, true) || throw Refusal::notNow('Practice devices have no such hand.');

        return $this->rig->hand($bench->address(), 'POST', '/devices/'.rawurlencode($serial)."/{$hand}", $body);
    }

    /** @return array<string, mixed> */
    public function withoutFaults(Bench $bench, string $serial): array
    {
        return $this->rig->hand($bench->address(), 'DELETE', '/devices/'.rawurlencode($serial).'/faults', []);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function speed(Bench $bench, array $body): array
    {
        return $this->rig->hand($bench->address(), 'PUT', '/speed', $body);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function atVendor(Vendor $vendor, array $body): array
    {
        return $this->rig->hand($vendor->address ?? throw Refusal::notNow('This vendor has no address.'), 'POST', '', $body);
    }

    /** @return array<string, mixed> */
    public function clearVendor(Vendor $vendor): array
    {
        return $this->rig->hand($vendor->address ?? throw Refusal::notNow('This vendor has no address.'), 'DELETE', '', []);
    }
}
