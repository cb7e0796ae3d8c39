<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\BagImport;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin BagImport */
final class BagImportResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'state' => $this->state,
            'progress' => $this->progress,
            'bagId' => $this->bag_id,
            'problem' => $this->problem === null ? null : ProblemDocument::write($this->problem),
            'broughtBy' => $this->brought_by,
            'at' => Rfc3339::format($this->created_at->toDateTimeImmutable()),
        ];
    }
}
