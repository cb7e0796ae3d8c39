<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What lists of years need: indexes in the orders in which they are shown, what is searched by words as one text, and
 * when a row last changed, to the microsecond and by whatever way.
 */
return new class extends Migration
{
    private const BAG_ORDERS = ['label', 'serial', 'taken_at', 'created_at', 'state'];

    public function up(): void
    {
        Schema::table('bags', static function (Blueprint $t): void {
            foreach (self::BAG_ORDERS as $column) {
                $t->index(['deleted_at', $column, 'id']);
            }
            $t->index(['deleted_at', 'lowered_from', 'created_at', 'bytes']); // what they take, without their rows
        });
        Schema::table('acts', static function (Blueprint $t): void {
            $t->index('created_at');
            foreach (['serial', 'bench_job_id', 'event'] as $column) {
                $t->index([$column, 'created_at']);
                $t->dropIndex([$column, 'id']);
            }
            $t->index(['who', 'created_at']);
            $t->index(['who', 'event', 'created_at']);
        });
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->text('search_words')->nullable();
        });
        if (DB::connection()->getDriverName() !== 'sqlite') {
            $this->jobsAreFound();
            $this->searchedAndOrdered();
            foreach (['bench_jobs', 'job_steps', 'bags'] as $table) {
                DB::statement("ALTER TABLE {$table} ADD COLUMN changed_at TIMESTAMP(6) NOT NULL INVISIBLE
                    DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6)");
            }
        }
    }

    /** As the model writes it from now on. */
    private function jobsAreFound(): void
    {
        DB::statement("UPDATE bench_jobs j SET search_words = CONCAT_WS(' ', id, serial,
            JSON_VALUE(device, '$.modelName'), variant, JSON_VALUE(device, '$.version'),
            JSON_VALUE(proof, '$.after.version'), (SELECT name FROM users u WHERE u.id = j.opened_by), ended_by,
            end_reason, losses, JSON_VALUE(about, '$.holder'))");
        DB::statement('ALTER TABLE bench_jobs ADD FULLTEXT INDEX bench_jobs_search_words (search_words)');
    }

    /** Versions are ordered by SemVer's numbers, and before a release stands what came ahead of it. */
    private function searchedAndOrdered(): void
    {
        $numbers = "SUBSTRING_INDEX(made_on, '-', 1)";
        $number = static fn (int $n): string => "LPAD(SUBSTRING_INDEX(SUBSTRING_INDEX({$numbers}, '.', {$n}), '.', -1),
            9, '0')";
        DB::statement("ALTER TABLE bags
            ADD COLUMN made_on_order VARCHAR(100) CHARACTER SET ascii GENERATED ALWAYS AS (CONCAT(
                {$number(1)}, {$number(2)}, {$number(3)},
                IF(made_on LIKE '%-%', CONCAT('0', SUBSTR(made_on, LOCATE('-', made_on))), '1'))) STORED INVISIBLE,
            ADD COLUMN size BIGINT UNSIGNED GENERATED ALWAYS AS (COALESCE(bytes, 0)) STORED INVISIBLE,
            ADD COLUMN search_words TEXT GENERATED ALWAYS AS (CONCAT_WS(' ', label, id, serial, hardware_id, made_on,
                declared_version, taken_at, state, IF(encryption = 'openpgp', 'encrypted', 'plain'), source,
                IF(lowered_from IS NULL, '', 'lowered copy'), kinds)) STORED INVISIBLE,
            ADD INDEX bags_by_made_on (deleted_at, made_on_order, id),
            ADD INDEX bags_by_size (deleted_at, size, id),
            ADD FULLTEXT INDEX bags_search_words (search_words)");
        DB::statement("ALTER TABLE acts
            ADD COLUMN search_words TEXT GENERATED ALWAYS AS
                (CONCAT_WS(' ', description, who, serial, properties)) STORED INVISIBLE,
            ADD FULLTEXT INDEX acts_search_words (search_words)");
    }
};
