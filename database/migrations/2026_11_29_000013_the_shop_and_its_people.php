<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What each person has chosen; who was removed can be had back for a day; and what a job's device says of itself. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('users', static function (Blueprint $t): void {
            $t->json('preferences')->nullable()->after('role');
            $t->string('removed_email')->nullable()->after('removed_at');
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->string('form', 20)->nullable()->after('recovery_keys');
            $t->string('imei', 20)->nullable()->after('form');
        });
    }
};
