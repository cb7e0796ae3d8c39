<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Whose a device is, how they are reached, what its box says, and notes, which go with its job. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->json('about')->nullable()->after('said');
            $t->string('variant', 200)->nullable()->after('about');
            $t->text('box_contradiction')->nullable()->after('variant');
        });
    }
};
