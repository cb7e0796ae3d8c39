<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\HeldCatalogue;
use App\Ports\Exception\LinkLost;
use App\Ports\VendorService;
use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Permit\Jws;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** The catalogues that this bench holds, and how they are refreshed. */
final readonly class HeldAlmanac
{
    public function __construct(private VendorService $vendor, private ClockInterface $clock)
    {
    }

    public function almanac(): Almanac
    {
        $newest = $this->newest();

        return Almanac::of(...($newest === null ? [] : [$newest->catalogue()]));
    }

    public function newest(): ?HeldCatalogue
    {
        return HeldCatalogue::query()->latest('issued_at')->first();
    }

    /**
     * Takes the vendor's catalogue in when its signature holds and it is newer than the held one; else the held one
     * stays.
     *
     * @throws LinkLost|\App\Ports\Exception\Refused|\JadeStep\Core\Permit\Exception\PermitException|\JadeStep\Core\Exchange\Exception\ExchangeException
     */
    public function refresh(): HeldCatalogue
    {
        $payload = Jws::open($this->vendor->signedCatalogue(), $this->vendor->keys(), $this->clock->now());
        $catalogue = CatalogueDocument::fromPayload($payload);
        $held = $this->newest();
        if ($held !== null && $catalogue->issuedAt <= $held->issued_at) {
            return $held;
        }

        return HeldCatalogue::query()->create([
            'vendor' => $catalogue->vendorId, 'vouched' => true,
            'issued_at' => Rfc3339::format($catalogue->issuedAt), 'fresh_until' => Rfc3339::format($catalogue->freshUntil),
            'document' => json_encode($payload, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
        ]);
    }
}
