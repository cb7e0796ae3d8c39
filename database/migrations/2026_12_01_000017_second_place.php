<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The copies of sealed bags at another place, and how far each is. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('second_copies', static function (Blueprint $t): void {
            $t->string('bag_id', 80)->primary();
            $t->string('state', 20)->index();
            $t->string('digest', 64)->nullable();
            $t->double('progress')->nullable();
            $t->unsignedInteger('tries')->default(0);
            $t->dateTime('not_before')->nullable();
            $t->dateTime('read_back_at')->nullable();
            $t->json('problem')->nullable();
            $t->dateTime('beat_at')->nullable();
            $t->timestamps();
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('second_copies');
    }
};
