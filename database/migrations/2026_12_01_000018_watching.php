<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What is told to people who do not look at the screen, whom it went to, and which workers are there. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('messages', static function (Blueprint $t): void {
            $t->id();
            $t->string('alarm', 40);
            // of what holds at this moment there is one; what is over holds no key
            $t->string('open_key', 200)->nullable()->unique();
            $t->string('subject', 300);
            $t->text('detail');
            $t->string('path', 200)->default('');
            $t->dateTime('raised_at')->index();
            $t->dateTime('ended_at')->nullable();
        });
        Schema::create('webhooks', static function (Blueprint $t): void {
            $t->id();
            $t->string('name', 100);
            $t->string('address');
            $t->text('secret');
            $t->json('alarms');
            $t->unsignedInteger('hand_minutes')->default(10);
            $t->string('made_by');
            $t->timestamps();
        });
        Schema::create('sendings', static function (Blueprint $t): void {
            $t->id();
            $t->foreignId('message_id')->constrained()->cascadeOnDelete();
            $t->string('receiver', 60);
            $t->foreignId('user_id')->nullable()->index();
            $t->foreignId('webhook_id')->nullable()->index();
            $t->string('state', 20);
            $t->unsignedInteger('tries')->default(0);
            $t->dateTime('not_before')->nullable();
            $t->string('problem', 500)->nullable();
            $t->dateTime('claimed_at')->nullable();
            $t->dateTime('sent_at')->nullable();
            $t->timestamps();
            $t->unique(['message_id', 'receiver']);
            $t->index(['state', 'not_before']);
        });
        Schema::create('worker_beats', static function (Blueprint $t): void {
            $t->string('worker', 120)->primary();
            $t->dateTime('seen_at')->index();
        });
    }

    public function down(): void
    {
        foreach (['worker_beats', 'sendings', 'webhooks', 'messages'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
