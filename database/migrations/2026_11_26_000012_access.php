<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Second factors, one-time links and personal tokens; an address is one address, accents and all. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('users', static function (Blueprint $t): void {
            DB::getDriverName() === 'sqlite' || $t->string('email')->collation('utf8mb4_bin')->change();
            $t->text('second_factor_secret')->nullable()->after('password');
            $t->timestamp('second_factor_at')->nullable()->after('second_factor_secret');
            $t->unsignedBigInteger('second_factor_step')->default(0)->after('second_factor_at');
            $t->text('recovery_codes')->nullable()->after('second_factor_step');
        });
        foreach (DB::table('users')->get(['id', 'email']) as $person) {
            DB::table('users')
                ->where('id', $person->id)
                ->update(['email' => mb_strtolower((string) $person->email)]);
        }
        Schema::create('password_links', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('user_id')->constrained()->cascadeOnDelete();
            $t->string('token_digest', 64)->unique();
            $t->string('made_by');
            $t->timestamp('expires_at');
            $t->timestamps();
        });
        Schema::create('personal_access_tokens', static function (Blueprint $t): void {
            $t->id();
            $t->morphs('tokenable');
            $t->string('name', 100);
            $t->string('token', 64)->unique();
            $t->text('abilities')->nullable();
            $t->timestamp('last_used_at')->nullable();
            $t->timestamp('expires_at')->nullable()->index();
            $t->timestamps();
        });
    }
};
