<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('held_catalogues', static function (Blueprint $t): void {
            $t->id();
            $t->string('vendor', 64)->index();
            $t->dateTime('issued_at');
            $t->dateTime('fresh_until');
            $t->boolean('vouched');
            $t->longText('document');
            $t->timestamps();
            $t->unique(['vendor', 'issued_at']);
        });
        Schema::create('bench_jobs', static function (Blueprint $t): void {
            $t->id();
            $t->string('serial');
            // One device, one job: an open job holds its device's serial, an ended one holds nothing.
            $t->string('held_serial')->nullable()->unique();
            $t->string('state', 20)->index();
            $t->foreignId('opened_by')->constrained('users');
            $t->json('device')->nullable();
            $t->json('goal')->nullable();
            $t->json('plan')->nullable();
            $t->json('route')->nullable();
            $t->json('accept')->nullable();
            $t->json('attestations')->nullable();
            $t->foreignId('catalogue_id')->nullable()->constrained('held_catalogues');
            $t->dateTime('line_crossed_at')->nullable();
            $t->string('line_crossed_by')->nullable();
            $t->json('line_checks')->nullable();
            $t->json('proof')->nullable();
            $t->dateTime('ended_at')->nullable();
            $t->timestamps();
        });
        Schema::create('job_steps', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('bench_job_id')->constrained()->cascadeOnDelete();
            $t->string('code', 40);
            $t->string('state', 20)->index();
            $t->unsignedInteger('attempt')->default(0);
            $t->string('claim', 40)->nullable();
            $t->string('phase')->nullable();
            $t->double('progress')->nullable();
            $t->unsignedBigInteger('bytes_done')->nullable();
            $t->unsignedBigInteger('bytes_total')->nullable();
            $t->boolean('do_not_disturb')->default(false);
            $t->json('data')->nullable();
            $t->json('problem')->nullable();
            $t->dateTime('not_before', 3)->nullable();
            $t->dateTime('heartbeat_at', 3)->nullable();
            $t->dateTime('started_at', 3)->nullable();
            $t->dateTime('ended_at', 3)->nullable();
            $t->timestamps();
            $t->unique(['bench_job_id', 'code']);
        });
        Schema::create('bags', static function (Blueprint $t): void {
            $t->string('id', 80)->primary();
            $t->foreignId('bench_job_id')->nullable()->constrained();
            $t->string('serial')->index();
            $t->string('state', 20)->index();
            $t->string('label');
            $t->dateTime('taken_at');
            $t->string('made_on', 64);
            $t->string('declared_version', 64);
            $t->string('lowered_from', 80)->nullable();
            $t->unsignedBigInteger('bytes')->nullable();
            $t->unsignedInteger('items')->nullable();
            $t->json('counts')->nullable();
            $t->json('faults')->nullable();
            $t->dateTime('verified_at')->nullable();
            $t->dateTime('sealed_at')->nullable();
            $t->dateTime('keep_until')->nullable();
            $t->timestamps();
        });
    }
};
