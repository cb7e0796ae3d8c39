<?php

declare(strict_types=1);

namespace App\Reading\Find;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\Batch;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\User;
use App\Models\Vendor;
use App\Reading\KeptAnswers;
use App\Reading\RowOrder;
use App\Reading\RowPages;
use App\Reading\Versions;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Collection;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** Finds whatever has a name here: jobs, devices, builds, bags, batches, acts, people, benches and vendors. */
final readonly class Finder
{
    private const OF_EACH = 6;

    private const LOOKED_AT = 40;

    /** Of the Journal only the newest acts are looked through: older ones are found on its own page. */
    private const ACTS_LOOKED_AT = 2000;

    public function __construct(
        private HeldAlmanac $held,
        private KeptAnswers $kept,
        private Versions $versions,
        private RowPages $pages,
    ) {
    }

    /** @return list<Found> the best first */
    public function find(string $typed, User $by): array
    {
        $rank = Rank::by($typed);
        if ($rank->isEmpty()) {
            return [];
        }
        $found = [];
        foreach (
            [
                $this->jobs($rank),
                $this->devices(),
                $this->builds(),
                $this->bags($rank),
                $this->batches(),
                $this->benchesAndVendors(),
                $by->actingRole()->leads() ? $this->people() : [],
                $this->acts($rank),
            ] as $kind
        ) {
            array_push($found, ...self::best($rank, $kind));
        }
        usort($found, static fn (Found $a, Found $b): int => $rank->of($b) <=> $rank->of($a));

        return $found;
    }

    /**
     * @param  list<Found>  $all
     * @return list<Found>
     */
    private static function best(Rank $rank, array $all): array
    {
        $fit = array_filter($all, static fn (Found $f): bool => $rank->of($f) > 0);
        usort($fit, static fn (Found $a, Found $b): int => $rank->of($b) <=> $rank->of($a));

        return array_slice($fit, 0, self::OF_EACH);
    }

    /** @return list<Found> */
    private function jobs(Rank $rank): array
    {
        $open = $this->rows(BenchJob::open(), new RowOrder('id'), $rank, ['job']);
        $jobs = $open->concat($this->rows(BenchJob::query(), new RowOrder('id'), $rank, ['job']))->unique('id');
        $told = static fn (BenchJob $j): Found => new Found(
            'job',
            trim("{$j->serial} ".($j->variant ?? (string) $j->device?->modelName)),
            trim("job {$j->id}, ".($j->about->holder ?? '')).' '
                .($j->state === JobState::Open ? 'in progress' : "ended, {$j->state->label()}"),
            "/jobs/{$j->id}",
        );

        return array_values($jobs->map($told)->all());
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @param  list<string>  $called  what all of them are called
     * @return Collection<int, T> those that have the typed words, beside what all are called
     */
    private function rows(Builder $rows, RowOrder $order, Rank $rank, array $called): Collection
    {
        $own = array_filter(
            $rank->words(),
            static fn (string $word): bool => ! array_any(
                $called,
                static fn (string $c): bool => str_starts_with($c, $word),
            ),
        );

        return $this->pages->page($rows, $order, null, implode(' ', $own), self::LOOKED_AT)->rows;
    }

    /** @return list<Found> the latest */
    private function batches(): array
    {
        return array_values(
            Batch::query()
                ->latest('id')
                ->limit(self::LOOKED_AT)
                ->get()
                ->map(static fn (Batch $b): Found => new Found(
                    'batch',
                    $b->name,
                    "batch {$b->id}, ".($b->ended_at === null ? 'open' : 'ended'),
                    "/batches/{$b->id}",
                ))
                ->all(),
        );
    }

    /** @return list<Found> what is plugged in and held by no job */
    private function devices(): array
    {
        $held = BenchJob::query()->whereNotNull('held_serial')->pluck('held_serial')->all();
        $found = [];
        foreach (Bench::query()->get() as $bench) {
            foreach ($bench->seen as $port) {
                if ($port->serial !== null && ! in_array($port->serial, $held, true)) {
                    $where = "{$bench->name}, ".($port->byAir ? 'near by air' : "port {$port->port}");
                    $about = trim("{$port->version} {$where}, in no job");
                    $found[] = new Found('device', trim("{$port->serial} {$port->modelName}"), $about, '/');
                }
            }
        }

        return $found;
    }

    /** @return list<Found> */
    private function builds(): array
    {
        $told = (array) $this->kept->of('builds to be found', $this->versions->ofAlmanac(), $this->namedBuilds(...));

        return array_values(array_map(static function (mixed $one): Found {
            $f = Fields::of(is_object($one) ? get_object_vars($one) : []);

            return new Found($f->string('what'), $f->string('title'), $f->string('about'), $f->string('path'));
        }, $told));
    }

    /** @return list<Found> */
    private function namedBuilds(): array
    {
        $found = [];
        foreach ($this->held->rows() as $row) {
            $catalogue = $this->held->catalogue($row);
            foreach ($catalogue->builds as $build) {
                $model = $build->packages[0]->hardwareIds[0] ?? '';
                $found[] = new Found(
                    'build',
                    self::name($build),
                    "{$catalogue->vendorId} {$build->osLine}, {$build->channel->value}",
                    "/almanac/{$model}?build=".rawurlencode($build->build),
                );
            }
        }

        return $found;
    }

    private static function name(Build $build): string
    {
        return "{$build->version->label()} {$build->build}";
    }

    /** @return list<Found> by name, device, version and time */
    private function bags(Rank $rank): array
    {
        $bags = Bag::query()->withoutGlobalScope('in-order');
        $told = static fn (Bag $b): Found => new Found(
            'bag',
            $b->label,
            "backup {$b->serial}, ".Version::parse($b->made_on)->label().", {$b->made_on}, "
                .Rfc3339::format($b->taken_at->toDateTimeImmutable()).", {$b->id}",
            '/shelf/'.rawurlencode($b->id),
        );
        $found = $this->rows($bags, new RowOrder('taken_at'), $rank, ['bag', 'backup']);

        return array_values($found->map($told)->all());
    }

    /** @return list<Found> */
    private function benchesAndVendors(): array
    {
        $bench = static fn (Bench $b): Found => new Found('bench', $b->name, 'bench', '/settings?at=benches');
        $vendor = static fn (Vendor $v): Found => new Found(
            'vendor',
            $v->name,
            "vendor {$v->id}",
            '/settings?at=vendors',
        );

        return [
            ...array_values(Bench::query()->get()->map($bench)->all()),
            ...array_values(Vendor::query()->get()->map($vendor)->all()),
        ];
    }

    /** @return list<Found> */
    private function people(): array
    {
        $told = static fn (User $u): Found => new Found(
            'person',
            $u->name,
            "{$u->email}, {$u->role->value}",
            '/settings?at=people',
        );

        return array_values(User::query()->where('removed_at', null)->get()->map($told)->all());
    }

    /** @return list<Found> */
    private function acts(Rank $rank): array
    {
        $newest = JournalLine::query()->max('id');
        $query = JournalLine::query()
            ->where('id', '>', (is_numeric($newest) ? (int) $newest : 0) - self::ACTS_LOOKED_AT)
            ->latest('id')
            ->limit(self::LOOKED_AT);
        foreach ($rank->words() as $word) {
            $like = self::like($word);
            $query->where(static fn (Builder $q) => $q
                ->where('description', 'like', $like)
                ->orWhere('serial', 'like', $like)
                ->orWhere('who', 'like', $like));
        }
        $told = static fn (JournalLine $l): Found => new Found(
            'act',
            $l->description,
            trim("{$l->who} {$l->serial}").', '.Rfc3339::format($l->created_at->toDateTimeImmutable()),
            '/journal?'.http_build_query(['serial' => (string) $l->serial, 'act' => (string) $l->event]),
        );

        return array_values($query->get()->map($told)->all());
    }

    private static function like(string $word): string
    {
        return '%'.addcslashes($word, '%_\\').'%';
    }
}
