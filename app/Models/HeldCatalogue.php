<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Exchange\CatalogueDocument;

/**
 * A catalogue as it was taken in, whole. The latest issued of a vendor that was not withdrawn is the one that counts.
 *
 * @property int $id
 * @property string $vendor
 * @property \Illuminate\Support\Carbon $issued_at
 * @property \Illuminate\Support\Carbon $fresh_until
 * @property bool $vouched whether the vendor's signature stands for it
 * @property string|null $file_name where it came from a file
 * @property string|null $taken_by who took the file in
 * @property \Illuminate\Support\Carbon|null $withdrawn_at
 * @property string $document
 * @property list<int> $turns times (Unix seconds) at which what it says changes by the clock alone
 * @property \Illuminate\Support\Carbon $created_at
 */
final class HeldCatalogue extends Model
{
    protected $fillable = [
        'vendor',
        'issued_at',
        'fresh_until',
        'vouched',
        'file_name',
        'taken_by',
        'withdrawn_at',
        'document',
        'turns',
    ];

    protected function casts(): array
    {
        return [
            'issued_at' => 'datetime',
            'fresh_until' => 'datetime',
            'withdrawn_at' => 'datetime',
            'vouched' => 'boolean',
            'turns' => 'array',
        ];
    }

    public function catalogue(): Catalogue
    {
        return CatalogueDocument::ofHeld($this->document);
    }
}
