<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What a bag adds on the disk: less than it holds, where it shares files with earlier ones. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->unsignedBigInteger('own_bytes')->nullable()->after('bytes');
            $t->dropIndex(['deleted_at', 'lowered_from', 'created_at', 'bytes']);
            $t->index(['deleted_at', 'lowered_from', 'created_at', 'bytes', 'own_bytes'], 'bags_by_what_they_take');
        });
        DB::table('bags')->whereNull('lowered_from')->update(['own_bytes' => DB::raw('bytes')]);
    }
};
