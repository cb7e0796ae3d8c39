<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\JournalLine;
use Illuminate\Http\Request;
use JadeStep\Core\Time\Rfc3339;

/** @mixin JournalLine */
final class JournalLineResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'at' => Rfc3339::format($this->created_at->toDateTimeImmutable()),
            'who' => $this->who,
            'machine' => $this->who === JournalLine::MACHINE,
            'act' => $this->event,
            'words' => $this->description,
            'serial' => $this->serial,
            'job' => $this->bench_job_id,
            'evidence' => (object) ($this->properties?->all() ?? []),
        ];
    }
}
