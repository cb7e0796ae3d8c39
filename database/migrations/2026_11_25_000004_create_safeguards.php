<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->string('encryption', 20)->default('none');
            $t->string('source', 20)->default('job');
            $t->string('hardware_id')->nullable();
            $t->string('os_line', 64)->nullable();
            $t->json('kinds')->nullable();
            $t->json('store_schemas')->nullable();
            $t->dateTime('passphrase_proven_at')->nullable();
            $t->string('check_state', 20)->nullable();
            $t->double('check_progress')->nullable();
            $t->dateTime('deleted_at')->nullable();
            $t->string('deleted_by')->nullable();
            $t->string('delete_reason', 500)->nullable();
        });
        Schema::table('users', static function (Blueprint $t): void {
            $t->dateTime('removed_at')->nullable();
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->string('purpose', 20)->default('crossing')->index();
            $t->json('backup')->nullable();
            $t->json('cloud')->nullable();
            $t->dateTime('link_lost_at')->nullable();
        });
        // Owners' passphrases: encrypted with the instance's key, for as long as a step needs them, then gone.
        Schema::create('held_passphrases', static function (Blueprint $t): void {
            $t->foreignId('bench_job_id')->primary()->constrained()->cascadeOnDelete();
            $t->text('ciphertext');
            $t->dateTime('expires_at');
        });
        Schema::create('side_exports', static function (Blueprint $t): void {
            $t->id();
            $t->string('bag_id', 80)->index();
            $t->string('serial')->index();
            $t->string('kind', 40);
            $t->dateTime('taken_at');
            $t->string('exported_by');
            $t->timestamps();
        });
        Schema::create('bag_imports', static function (Blueprint $t): void {
            $t->id();
            $t->string('name');
            $t->string('path');
            $t->string('state', 20);
            $t->double('progress')->nullable();
            $t->string('bag_id', 80)->nullable();
            $t->json('problem')->nullable();
            $t->string('brought_by');
            $t->timestamps();
        });
        Schema::create('settings', static function (Blueprint $t): void {
            $t->string('name', 64)->primary();
            $t->json('value');
            $t->timestamps();
        });
    }
};
