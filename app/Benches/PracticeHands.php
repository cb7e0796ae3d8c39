<?php

declare(strict_types=1);

namespace App\Benches;

use App\Models\Bench;
use App\Models\Vendor;
use App\Ports\Exception\LinkLost;
use App\Ports\PracticeRig;
use App\Refusal\Refusal;
use Illuminate\Support\Collection;
use JadeStep\Core\Exchange\Fields;

/** Reaches the practice hands of the stand-ins behind benches and vendors. A real bench has none, and shows none. */
final readonly class PracticeHands
{
    private const HANDS = ['port', 'keys', 'answers', 'faults', 'state', 'reset'];

    public function __construct(private PracticeRig $rig)
    {
    }

    /** @return list<PracticeStand> */
    public function benches(): array
    {
        return $this->withHands(
            Bench::query()
                ->get()
                ->sortBy('id')
                ->map(fn (Bench $b): PracticeStand => $this->look($b->id, $b->name, $b->address())),
        );
    }

    /** @return list<PracticeStand> */
    public function vendors(): array
    {
        return $this->withHands(
            Vendor::query()
                ->get()
                ->filter(static fn (Vendor $v): bool => $v->address !== null)
                ->map(fn (Vendor $v): PracticeStand => $this->look($v->id, $v->name, (string) $v->address)),
        );
    }

    private function look(int|string $id, string $name, string $address): PracticeStand
    {
        try {
            return new PracticeStand($id, $name, false, $this->rig->shown($address));
        } catch (LinkLost) {
            return new PracticeStand($id, $name, true, null);
        }
    }

    /**
     * @param  Collection<int, PracticeStand>  $stands
     * @return list<PracticeStand>
     */
    private function withHands(Collection $stands): array
    {
        return array_values(
            $stands->filter(static fn (PracticeStand $s): bool => $s->isSilent || $s->practice !== null)->all(),
        );
    }

    public function atDevice(Bench $bench, string $serial, string $hand, Fields $body): Fields
    {
        in_array($hand, self::HANDS, true) || throw Refusal::notNow('Practice devices have no such hand.');

        return $this->rig->hand($bench->address(), 'POST', '/devices/'.rawurlencode($serial)."/{$hand}", $body);
    }

    public function withoutFaults(Bench $bench, string $serial): Fields
    {
        return $this->rig->hand(
            $bench->address(),
            'DELETE',
            '/devices/'.rawurlencode($serial).'/faults',
            Fields::of([]),
        );
    }

    public function speed(Bench $bench, Fields $body): Fields
    {
        return $this->rig->hand($bench->address(), 'PUT', '/speed', $body);
    }

    public function atVendor(Vendor $vendor, Fields $body): Fields
    {
        return $this->rig->hand(
            $vendor->address ?? throw Refusal::notNow('This vendor has no address.'),
            'POST',
            '',
            $body,
        );
    }

    public function clearVendor(Vendor $vendor): Fields
    {
        return $this->rig->hand(
            $vendor->address ?? throw Refusal::notNow('This vendor has no address.'),
            'DELETE',
            '',
            Fields::of([]),
        );
    }
}
