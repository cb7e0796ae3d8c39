<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\HeldCatalogue;
use App\Models\Vendor;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** A vendor and the word that is held of it. */
final readonly class HeldVendorResource implements \JsonSerializable
{
    public function __construct(private Vendor $vendor, private ?HeldCatalogue $held, private \DateTimeImmutable $now)
    {
    }

    public function jsonSerialize(): mixed
    {
        $v = $this->vendor;

        return [
            'id' => $v->id,
            'name' => $v->name,
            'address' => $v->address,
            'refreshMinutes' => $v->refresh_minutes,
            'triedAt' => Rfc3339::formatOrNull($v->tried_at?->toDateTimeImmutable()),
            'refreshedAt' => Rfc3339::formatOrNull($v->refreshed_at?->toDateTimeImmutable()),
            'problem' => $v->problem === null ? null : ProblemDocument::write($v->problem),
            'held' => $this->held === null ? null : $this->held($this->held),
        ];
    }

    /** @return array<string, mixed> */
    private function held(HeldCatalogue $held): array
    {
        $catalogue = $held->catalogue();

        return [
            'id' => $held->id,
            'issuedAt' => Rfc3339::format($catalogue->issuedAt),
            'freshUntil' => Rfc3339::format($catalogue->freshUntil),
            'stale' => $catalogue->isStaleAt($this->now),
            'vouched' => $held->vouched,
            'fileName' => $held->file_name,
            'takenBy' => $held->taken_by,
            'models' => count($catalogue->models),
            'builds' => count($catalogue->builds),
        ];
    }
}
