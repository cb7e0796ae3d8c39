<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The fingerprint of the public key that a bag is closed for, where it is not closed with a passphrase. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            $t->string('closed_for', 80)->nullable()->after('encryption');
        });
    }
};
