<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Exchange\CatalogueDocument;

/**
 * A catalogue as it was taken in, whole. The newest of a vendor is the one that counts.
 *
 * @property int $id
 * @property string $vendor
 * @property \Illuminate\Support\Carbon $issued_at
 * @property \Illuminate\Support\Carbon $fresh_until
 * @property bool $vouched
 * @property string $document
 */
final class HeldCatalogue extends Model
{
    protected $fillable = ['vendor', 'issued_at', 'fresh_until', 'vouched', 'document'];

    protected function casts(): array
    {
        return ['issued_at' => 'datetime', 'fresh_until' => 'datetime', 'vouched' => 'boolean'];
    }

    public function catalogue(): Catalogue
    {
        return CatalogueDocument::parse($this->document);
    }
}
