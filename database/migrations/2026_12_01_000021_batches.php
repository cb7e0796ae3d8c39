<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Devices that are to be done by a deadline, and the schedule that was last made of them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('batches', static function (Blueprint $t): void {
            $t->id();
            $t->string('name', 120);
            $t->dateTime('starts_at');
            $t->dateTime('deadline')->nullable();
            $t->json('workshop');
            $t->string('made_by');
            $t->longText('schedule')->nullable();
            $t->json('gist')->nullable();
            $t->json('changes');
            $t->string('made_from', 64)->nullable();
            $t->dateTime('made_at')->nullable();
            $t->dateTime('ended_at')->nullable()->index();
            $t->timestamps();
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->foreignId('batch_id')->nullable()->constrained()->nullOnDelete();
        });
    }

    public function down(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->dropConstrainedForeignId('batch_id');
        });
        Schema::dropIfExists('batches');
    }
};
