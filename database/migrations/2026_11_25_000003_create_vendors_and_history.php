<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('vendors', static function (Blueprint $t): void {
            $t->string('id', 64)->primary();
            $t->string('name');
            // Null where its word comes from files only.
            $t->string('address')->nullable();
            $t->unsignedInteger('refresh_minutes')->default(60);
            $t->dateTime('tried_at')->nullable();
            $t->dateTime('refreshed_at')->nullable();
            $t->json('problem')->nullable();
            $t->timestamps();
        });
        Schema::create('vendor_keys', static function (Blueprint $t): void {
            $t->id();
            $t->string('vendor_id', 64)->index();
            $t->string('kid');
            $t->string('thumbprint', 64);
            $t->json('jwk');
            $t->string('state', 20);
            $t->string('name')->nullable();
            $t->string('decided_by')->nullable();
            $t->dateTime('decided_at')->nullable();
            $t->timestamps();
            $t->unique(['vendor_id', 'thumbprint']);
        });
        Schema::create('almanac_changes', static function (Blueprint $t): void {
            $t->id();
            $t->string('vendor', 64)->index();
            $t->string('code', 40);
            $t->string('os_line', 64);
            $t->string('version', 64)->nullable();
            $t->string('build')->nullable();
            $t->json('hardware_ids');
            $t->string('words', 500);
            $t->boolean('vouched');
            $t->dateTime('noticed_at')->index();
            $t->timestamps();
        });
        Schema::table('held_catalogues', static function (Blueprint $t): void {
            $t->dropUnique(['vendor', 'issued_at']);
            $t->string('file_name')->nullable();
            $t->string('taken_by')->nullable();
            $t->dateTime('withdrawn_at')->nullable();
            $t->index(['vendor', 'issued_at']);
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->json('said')->nullable();
            $t->json('differences')->nullable();
            $t->json('accepted')->nullable();
            $t->json('flag')->nullable();
        });
    }
};
