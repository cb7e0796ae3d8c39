<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->json('return_choice')->nullable();
            $t->json('refused_bases')->nullable();
            $t->json('overlays')->nullable();
            $t->json('imports')->nullable();
            $t->json('aftercare')->nullable();
            $t->json('losses')->nullable();
            $t->string('end_reason', 500)->nullable();
            $t->string('ended_by')->nullable();
            $t->index(['state', 'ended_at']);
        });
        Schema::create('return_outcomes', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('bench_job_id')->constrained()->cascadeOnDelete();
            $t->string('bag_id', 80);
            $t->string('os_line', 64);
            $t->unsignedInteger('from_major');
            $t->unsignedInteger('to_major');
            $t->string('kind', 40);
            $t->boolean('succeeded');
            $t->dateTime('noted_at');
            $t->unique(['bench_job_id', 'bag_id', 'kind']);
            $t->index(['os_line', 'from_major', 'to_major', 'kind']);
        });
        Schema::create('acts', static function (Blueprint $t): void {
            $t->id();
            $t->string('log_name')->nullable();
            $t->text('description');
            $t->nullableMorphs('subject', 'subject');
            $t->string('event', 60)->nullable();
            $t->nullableMorphs('causer', 'causer');
            $t->json('properties')->nullable();
            $t->uuid('batch_uuid')->nullable();
            $t->string('who');
            $t->string('serial')->nullable();
            $t->unsignedBigInteger('bench_job_id')->nullable();
            $t->dateTime('created_at', 3)->nullable();
            $t->dateTime('updated_at', 3)->nullable();
            $t->index(['serial', 'id']);
            $t->index(['bench_job_id', 'id']);
            $t->index(['event', 'id']);
        });
        // Append-only for everyone, whatever the program does.
        foreach (['update' => 'changed', 'delete' => 'deleted'] as $verb => $word) {
            $said = "What the Journal holds is not {$word}.";
            $body = DB::connection()->getDriverName() === 'sqlite'
                ? "BEGIN SELECT RAISE(ABORT, '{$said}'); END"
                : "SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '{$said}'";
            DB::unprepared("CREATE TRIGGER acts_no_{$verb} BEFORE {$verb} ON acts FOR EACH ROW {$body}");
        }
    }
};
