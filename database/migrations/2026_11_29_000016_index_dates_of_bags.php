<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Which sealed copies are past their date is asked again and again. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->index(['keep_until', 'deleted_at']);
        });
    }

    public function down(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->dropIndex(['keep_until', 'deleted_at']);
        });
    }
};
