<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What is estimated of the windows that jobs need, and what was told of windows, with what then happened. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->json('chances')->nullable();
        });
        Schema::create('told_forecasts', static function (Blueprint $t): void {
            $t->id();
            $t->string('vendor', 60);
            $t->string('os_line', 60);
            $t->string('version', 60);
            $t->string('build', 60);
            $t->char('package_sha256', 64);
            $t->dateTime('told_at');
            $t->unsignedInteger('days');
            $t->double('chance');
            $t->unsignedInteger('closings');
            $t->dateTime('due_at')->index();
            $t->boolean('held')->nullable();
            $t->dateTime('judged_at')->nullable();
            $t->index(['package_sha256', 'days', 'told_at']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('told_forecasts');
        Schema::table('bench_jobs', static fn (Blueprint $t) => $t->dropColumn('chances'));
    }
};
