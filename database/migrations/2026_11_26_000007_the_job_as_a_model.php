<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Rows that exist go on: what was kept in a form that meant two things is kept as what it meant. */
return new class extends Migration
{
    private const PHASES = [
        'write the manifests' => 'write-manifests',
        'read back' => 'read-back',
        'open with the passphrase' => 'open-bag',
        'send the package' => 'send-package',
        'ask for a permit' => 'ask-for-permit',
        'compare the digest' => 'compare-digest',
        'share the payload' => 'share-payload',
        'read the device' => 'read',
        'open the way' => 'open-the-way',
        'take the right to write' => 'take-right-to-write',
        'wait for another job' => 'wait-for-another-job',
    ];

    public function up(): void
    {
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->string('intent', 20)->default('take-down')->after('serial')->index();
            $t->boolean('nightly')->default(false)->after('intent');
            $t->json('recovery_keys')->nullable()->after('device');
            $t->json('checks')->nullable()->after('line_checks');
            $t->boolean('return_held')->default(false)->after('return_choice');
            $t->json('standing_promise')->nullable()->after('return_held');
            $t->json('refused_permits')->nullable()->after('refused_bases');
            $t->unsignedInteger('restorable')->default(0)->after('imports');
        });
        DB::table('bench_jobs')->where('purpose', 'backup')->update(['intent' => 'back-up-only', 'nightly' => true]);
        DB::table('bench_jobs')->where('purpose', 'backup')->where('state', 'done')->update(['state' => 'backed-up']);
        DB::table('bench_jobs')->orderBy('id')->each($this->job(...));
        foreach (self::PHASES as $old => $new) {
            DB::table('job_steps')->where('phase', $old)->update(['phase' => $new]);
        }
        DB::table('bags')->orderBy('id')->each($this->bag(...));
        Schema::table('bench_jobs', static function (Blueprint $t): void {
            $t->dropIndex(['purpose']);
            $t->dropColumn('purpose');
        });
        Schema::table('benches', static function (Blueprint $t): void {
            $t->json('seen')->nullable();
            $t->dateTime('seen_at', 3)->nullable();
        });
        Schema::rename('return_outcomes', 'return_records');
    }

    private function job(object $row): void
    {
        $changed = array_filter([
            ...$this->returnOf($row), 'overlays' => self::overlays($row->overlays),
            'standing_promise' => $row->erase_begun_at === null ? null : self::promise($row->route),
        ], static fn (mixed $v): bool => $v !== null);
        $row->overlays === null || isset($changed['overlays']) || $changed['overlays'] = null;
        $changed === [] || DB::table('bench_jobs')->where('id', $row->id)->update($changed);
    }

    /** @return array<string, mixed> */
    private function returnOf(object $row): array
    {
        $choice = $row->return_choice === null ? null : json_decode($row->return_choice, true);
        if ($choice === null || ($choice['mode'] ?? null) === 'hold') {
            return $choice === null ? [] : ['return_choice' => DB::raw('NULL'), 'return_held' => true];
        }
        $mode = match (true) {
            $choice['mode'] === 'as-new' => 'keep-as-new',
            $choice['backup'] === 'cloud' => 'from-cloud',
            $choice['backup'] === null => 'put-nothing-back',
            default => 'put-back',
        };
        $kept =
            ['mode' => $mode, 'promise' => ['kinds' => $choice['promise'], 'losses' => $choice['losses']]] + $choice;

        return ['return_choice' => json_encode(array_diff_key($kept, ['losses' => 1]))];
    }

    private static function overlays(?string $json): ?string
    {
        $words = $json === null ? null : json_decode($json, true);
        if ($words === null || array_is_list($words)) {
            return null;
        }

        return json_encode(
            array_map(static fn (string $what, array $w): array => ['what' => $what] + $w, array_keys($words), $words),
        )
            ?: null;
    }

    private static function promise(?string $route): ?string
    {
        $r = $route === null ? null : json_decode($route, true);

        return $r === null ? null : (json_encode(['kinds' => $r['kinds'], 'losses' => $r['losses']]) ?: null);
    }

    /** A base brings only the kinds of which it holds items. */
    private function bag(object $row): void
    {
        $counts = $row->counts === null ? [] : json_decode($row->counts, true);
        $counts === []
            || DB::table('bags')
                ->where('id', $row->id)
                ->update(['kinds' => json_encode(array_keys(array_filter($counts)))]);
    }
};
