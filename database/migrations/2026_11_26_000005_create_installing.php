<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('benches', static function (Blueprint $t): void {
            $t->id();
            $t->string('name')->unique();
            // null: the link that the instance's own settings name
            $t->string('link_address')->nullable()->unique();
            $t->json('ports');
            $t->timestamps();
        });
        Schema::create('held_packages', static function (Blueprint $t): void {
            $t->string('sha256', 64)->primary();
            $t->string('vendor', 64);
            $t->string('build', 64);
            $t->string('version', 64);
            $t->string('file_name');
            $t->unsignedBigInteger('bytes');
            $t->string('state', 20);
            $t->unsignedBigInteger('bytes_done')->default(0);
            $t->double('bytes_per_second')->nullable();
            $t->string('source', 20)->nullable();
            $t->boolean('ahead')->default(false);
            $t->json('problem')->nullable();
            $t->dateTime('used_at', 3);
            $t->dateTime('checked_at')->nullable();
            $t->timestamps();
        });
        Schema::create('measurements', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('bench_id')->nullable()->constrained()->cascadeOnDelete();
            $t->string('what', 20);
            $t->double('value');
            $t->foreignId('bench_job_id')->nullable();
            $t->dateTime('measured_at');
            $t->index(['bench_id', 'what', 'id']);
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->foreignId('bench_id')->nullable()->after('serial')->constrained()->nullOnDelete();
            // when the device was first told to install, and when it was first told to erase
            $t->dateTime('install_begun_at')->nullable()->after('line_checks');
            $t->dateTime('erase_begun_at')->nullable()->after('install_begun_at');
        });
        Schema::table('job_steps', static function (Blueprint $t): void {
            $t->unsignedTinyInteger('leg')->default(0)->after('code');
            $t->double('bytes_per_second')->nullable()->after('bytes_total');
            $t->dateTime('problem_at', 3)->nullable()->after('problem');
            $t->unique(['bench_job_id', 'code', 'leg']);
            $t->dropUnique(['bench_job_id', 'code']);
        });
    }
};
