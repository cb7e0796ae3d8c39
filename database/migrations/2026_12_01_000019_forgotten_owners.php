<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** When the owner of a job's device was forgotten: from then on only counts of it are left. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->dateTime('forgotten_at')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->dropColumn('forgotten_at');
        });
    }
};
