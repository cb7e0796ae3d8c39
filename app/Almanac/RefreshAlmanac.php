<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\HeldCatalogue;
use App\Models\Vendor;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\VendorServices;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\ExchangeException;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Permit\Exception\PermitException;
use JadeStep\Core\Permit\Exception\Untrusted;
use JadeStep\Core\Permit\Jws;
use Psr\Clock\ClockInterface;

/** Asks vendors for their word. What fails leaves the held catalogue as it is, and is told. */
final readonly class RefreshAlmanac
{
    public function __construct(
        private VendorServices $services,
        private VendorKeys $keys,
        private TakeCatalogue $take,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<RefreshResult> */
    public function all(): array
    {
        return array_values(
            Vendor::query()->where('address', '!=', null)->oldest('id')->get()->map($this->of(...))->all(),
        );
    }

    public function of(Vendor $vendor): RefreshResult
    {
        $vendor->update(['tried_at' => $this->clock->now()]);
        try {
            $changes = $this->ask($vendor);
        } catch (Untrusted $e) {
            return $this->failed(
                $vendor,
                $e->keyIsUnknown ? 'unknown-key' : 'untrusted',
                $e->getMessage().($e->keyIsUnknown ? $this->offer($vendor) : ''),
            );
        } catch (LinkLost $e) {
            return $this->failed($vendor, 'link-lost', $e->getMessage());
        } catch (Declined $e) {
            return $this->failed($vendor, $e->reason, $e->getMessage());
        } catch (PermitException $e) {
            return $this->failed($vendor, 'untrusted', $e->getMessage());
        } catch (ExchangeException $e) {
            return $this->failed($vendor, 'bad-catalogue', mb_substr($e->getMessage(), 0, 600));
        } catch (OtherWord $e) {
            return $this->failed($vendor, $e->reason, $e->getMessage());
        }
        $vendor->update(['refreshed_at' => $this->clock->now(), 'problem' => null]);

        return new RefreshResult($vendor->id, $changes, null);
    }

    /**
     * @return int how many changes it brought
     *
     * @throws OtherWord where it is another vendor's, or older than what is held
     * @throws LinkLost|Declined|PermitException|ExchangeException
     */
    private function ask(Vendor $vendor): int
    {
        $compact = $this->services
            ->at($vendor->address ?? throw OtherWord::withoutAddress($vendor->name))
            ->signedCatalogue();
        $payload = Jws::open($compact, $this->keys->accepted($vendor), $this->clock->now());
        $catalogue = CatalogueDocument::fromPayload($payload);
        if ($catalogue->vendorId !== $vendor->id) {
            throw OtherWord::ofAnother($catalogue->vendorId, $vendor->id);
        }
        $latest = HeldCatalogue::query()
            ->where('vendor', $vendor->id)
            ->where('vouched', true)
            ->latest('issued_at')
            ->first(['issued_at']);
        $held = $latest?->issued_at->toDateTimeImmutable();
        if ($held !== null && $catalogue->issuedAt < $held) {
            throw OtherWord::older($catalogue->issuedAt, $held);
        }

        return $catalogue->issuedAt->getTimestamp() === $held?->getTimestamp()
            ? 0
            : count($this->take->vouched($payload, $catalogue));
    }

    /** A key that nobody accepted is looked up, so that it can be seen and decided on. */
    private function offer(Vendor $vendor): string
    {
        try {
            $new = $this->keys->look($vendor);
        } catch (LinkLost|Declined|PermitException) {
            return ' Its keys could not be read.';
        }

        return $new > 0
            ? ' A new key is offered: a lead compares its thumbprint with the vendor and accepts it in Settings.'
            : ' A lead decides on it in Settings.';
    }

    private function failed(Vendor $vendor, string $code, string $detail): RefreshResult
    {
        $problem = Problem::told($code, $detail);
        $vendor->update(['problem' => $problem]);

        return new RefreshResult($vendor->id, 0, $problem);
    }
}
