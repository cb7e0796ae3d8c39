<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Almanac\FilePreview;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Time\Rfc3339;

final readonly class FilePreviewResource implements \JsonSerializable
{
    private const CHANGES_SHOWN = 100;

    public function __construct(private FilePreview $preview)
    {
    }

    public function jsonSerialize(): mixed
    {
        $c = $this->preview->catalogue;

        return [
            'vendor' => $c?->vendorId,
            'vendorName' => $c?->vendorName,
            'issuedAt' => Rfc3339::formatOrNull($c?->issuedAt),
            'freshUntil' => Rfc3339::formatOrNull($c?->freshUntil),
            'models' => $c === null ? null : count($c->models),
            'builds' => $c === null ? null : count($c->builds),
            'vouched' => $this->preview->vouched,
            'counts' => $this->preview->counts,
            'faults' => $this->preview->faults,
            'changes' => array_map(
                static fn (Change $change): string => $change->words,
                array_slice($this->preview->changes, 0, self::CHANGES_SHOWN),
            ),
            'moreChanges' => max(0, count($this->preview->changes) - self::CHANGES_SHOWN),
        ];
    }
}
