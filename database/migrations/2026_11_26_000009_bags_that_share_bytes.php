<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Since when a bag's files may be a lowered copy's files too, so that it is read again before it is trusted. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->timestamp('shared_at', 3)->nullable()->after('sealed_at');
        });
        // every copy made until now was linked where that was possible
        foreach (DB::table('bags')->whereNotNull('lowered_from')->get(['lowered_from', 'created_at']) as $copy) {
            DB::table('bags')->where('id', $copy->lowered_from)->update(['shared_at' => $copy->created_at]);
        }
    }
};
