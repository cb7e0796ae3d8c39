<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\KeyState;
use App\Models\User;
use App\Models\Vendor;
use App\Models\VendorKey;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\VendorServices;
use App\Refusal\Refusal;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Permit\Exception\Untrusted;
use JadeStep\Core\Permit\KeySet;
use Psr\Clock\ClockInterface;

/** Which keys of a vendor count: those that a person accepted by name, having seen the thumbprint. */
final readonly class VendorKeys
{
    public function __construct(private VendorServices $services, private ClockInterface $clock)
    {
    }

    /** @throws Untrusted where no key of the vendor was accepted yet */
    public function accepted(Vendor $vendor): KeySet
    {
        $jwks = VendorKey::query()
            ->where('vendor_id', $vendor->id)
            ->where('state', KeyState::Accepted)
            ->get()
            ->map(static fn (VendorKey $k): array => $k->jwk->all())
            ->all();

        return $jwks === []
            ? throw Untrusted::noKeys()
            : KeySet::parse(json_encode(['keys' => $jwks], JSON_THROW_ON_ERROR));
    }

    /**
     * Asks the vendor's service which keys it shows, and keeps the new ones as offered.
     *
     * @return int how many are new
     *
     * @throws LinkLost|Declined|Untrusted
     */
    public function look(Vendor $vendor): int
    {
        $shown = $this->services
            ->at(
                $vendor->address
                    ?? throw Refusal::notNow("{$vendor->name} has no address. Its word comes from files only."),
            )
            ->shownKeys();
        $set = KeySet::parse($shown);
        $new = 0;
        foreach ($set->jwks as $kid => $jwk) {
            $key = VendorKey::query()->firstOrCreate(
                ['vendor_id' => $vendor->id, 'thumbprint' => $set->thumbprints[$kid]],
                ['kid' => (string) $kid, 'jwk' => Fields::of($jwk), 'state' => KeyState::Offered],
            );
            $new += $key->wasRecentlyCreated ? 1 : 0;
        }

        return $new;
    }

    /** @param  string|null  $name  under which an accepted key is known from now on */
    public function decide(VendorKey $key, KeyState $state, ?string $name, User $by): void
    {
        if ($state === KeyState::Accepted && trim((string) $name) === '') {
            throw Refusal::notNow(
                'Give the key a name, such as "Brightmere, autumn 2026", so that others know it again.',
            );
        }
        $key->update([
            'state' => $state,
            'name' => $state === KeyState::Accepted ? $name : $key->name,
            'decided_by' => $by->name,
            'decided_at' => $this->clock->now(),
        ]);
    }
}
