<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\HeldPackage;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin HeldPackage */
final class PackageResource extends Answer
{
    /** @param  list<int>  $jobs  open ones that rest on it */
    public function __construct(HeldPackage $package, private readonly array $jobs)
    {
        parent::__construct($package);
    }

    public function toArray(Request $request): array
    {
        $left =
            $this->bytes_per_second === null || $this->bytes_per_second <= 0
                ? null
                : ($this->bytes - $this->bytes_done) / $this->bytes_per_second;

        return [
            'sha256' => $this->sha256,
            'vendor' => $this->vendor,
            'build' => $this->build,
            'version' => $this->version,
            'fileName' => $this->file_name,
            'bytes' => $this->bytes,
            'state' => $this->state->value,
            'bytesDone' => $this->bytes_done,
            'bytesPerSecond' => $this->bytes_per_second,
            'secondsLeft' => $left,
            'source' => $this->source,
            'problem' => $this->problem === null ? null : ProblemDocument::write($this->problem),
            'jobs' => $this->jobs,
            'usedAt' => Rfc3339::format($this->used_at->toDateTimeImmutable()),
            'checkedAt' => Rfc3339::formatOrNull($this->checked_at?->toDateTimeImmutable()),
        ];
    }
}
