<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\AlmanacChange;
use Illuminate\Http\Request;
use JadeStep\Core\Time\Rfc3339;

/** @mixin AlmanacChange */
final class AlmanacChangeResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'vendor' => $this->vendor,
            'code' => $this->code,
            'version' => $this->version,
            'build' => $this->build,
            'hardwareIds' => $this->hardware_ids,
            'words' => $this->words,
            'vouched' => $this->vouched,
            'noticedAt' => Rfc3339::format($this->noticed_at->toDateTimeImmutable()),
        ];
    }
}
