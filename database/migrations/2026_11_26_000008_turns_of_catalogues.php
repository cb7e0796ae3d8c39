<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;
use JadeStep\Core\Exchange\CatalogueDocument;

/** A held catalogue knows when what it says changes by the clock alone, so that nobody parses it to find out. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('held_catalogues', static function (Blueprint $t): void {
            $t->json('turns')->nullable()->after('document');
        });
        foreach (DB::table('held_catalogues')->orderBy('id')->get(['id', 'document']) as $row) {
            $turns = CatalogueDocument::ofHeld((string) $row->document)->turns();
            DB::table('held_catalogues')->where('id', $row->id)->update(['turns' => json_encode($turns)]);
        }
    }
};
