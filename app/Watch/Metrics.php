<?php

declare(strict_types=1);

namespace App\Watch;

use App\Facts\JobFacts;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\SecondCopy;
use App\Models\Sending;
use App\Models\Vendor;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Stage;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Watch\MetricsText;
use Psr\Clock\ClockInterface;

/**
 * What is counted, for whoever draws it. Counters are of the Journal, which nothing is ever taken from. No label is a
 * serial, an owner, a person or a bag.
 */
final readonly class Metrics
{
    private const KEPT_SECONDS = 10;

    private const OUTCOMES = ['done', 'failed', 'again'];

    /** Steps whose line in the Journal says how many bytes they moved. */
    private const MOVING = ['back-up', 'put-back', 'bring-in', 'verify-backup'];

    public function __construct(
        private JobFacts $facts,
        private Health $health,
        private Disk $disk,
        private WorkerBeats $beats,
        private Repository $cache,
        private ClockInterface $clock,
    ) {
    }

    public function text(): string
    {
        $text = $this->cache->remember('metrics', self::KEPT_SECONDS, $this->made(...));

        return is_string($text) ? $text : $this->made();
    }

    private function made(): string
    {
        $m = new MetricsText;
        $m->add('jade_step_jobs', 'gauge', 'Open jobs by the stage they stand in', $this->jobs());
        $m->add('jade_step_steps_total', 'counter', 'Steps of jobs by what became of them', self::steps());
        $m->addSummary('jade_step_step_seconds', 'Seconds that steps took that are done', self::durations());
        $m->add('jade_step_bytes_moved_total', 'counter', 'Bytes that steps have moved', self::bytes());
        $m->add('jade_step_queue_wait_seconds', 'gauge', 'How long the longest waiting call for a worker has waited', [
            [[], $this->health->queueWait()],
        ]);
        $m->add('jade_step_workers', 'gauge', 'Workers heard of lately', [[[], $this->beats->heard()]]);
        $m->add('jade_step_disk_free_bytes', 'gauge', 'Free where backups and packages lie', [
            [['what' => 'bags'], $this->disk->free('bags')],
            [['what' => 'packages'], $this->disk->free('packages')],
        ]);
        $m->add('jade_step_bags', 'gauge', 'Backups on the Shelf by their state', self::bags());
        $m->add(
            'jade_step_almanac_age_seconds',
            'gauge',
            'Since when a vendor was last asked with success',
            $this->almanac(),
        );
        $m->add('jade_step_faults', 'gauge', 'What is at fault now', $this->faults());
        $m->add('jade_step_health', 'gauge', '0 good, 1 somebody should look, 2 work stands still', $this->health());
        $m->add(
            'jade_step_messages_total',
            'counter',
            'Messages to people and webhooks by what became of them',
            self::sent(),
        );

        return $m->text();
    }

    /** @return list<array{array<string, string>, int}> */
    private function jobs(): array
    {
        $many = array_fill_keys(array_column(Stage::cases(), 'value'), 0);
        foreach (BenchJob::openWithAll() as $job) {
            $many[$this->facts->job($job)->position()->stage()->value]++;
        }

        return array_map(static fn (string $s, int $n): array => [['stage' => $s], $n], array_keys($many), $many);
    }

    /** @return iterable<array{array<string, string>, int}> */
    private static function steps(): iterable
    {
        $events = [];
        foreach (StepCode::cases() as $code) {
            foreach (self::OUTCOMES as $outcome) {
                $events["{$code->value}-{$outcome}"] = ['step' => $code->value, 'outcome' => $outcome];
            }
        }
        $counted = DB::table('acts')->whereIn('event', array_keys($events))->groupBy('event')
            ->selectRaw('event, COUNT(*) AS many')->pluck('many', 'event');
        foreach ($counted as $event => $many) {
            yield [$events[(string) $event], self::whole($many)];
        }
    }

    /** @return iterable<array{array<string, string>, int, int}> */
    private static function durations(): iterable
    {
        $rows = DB::table('job_steps')->where('state', 'done')->whereNotNull('started_at')->groupBy('code')
            ->selectRaw('code, COUNT(*) AS many, SUM(TIMESTAMPDIFF(SECOND, started_at, ended_at)) AS seconds')->get();
        foreach ($rows as $row) {
            $row = (array) $row;
            yield [
                ['step' => is_string($row['code']) ? $row['code'] : ''],
                self::whole($row['seconds']),
                self::whole($row['many']),
            ];
        }
    }

    /** @return iterable<array{array<string, string>, int}> */
    private static function bytes(): iterable
    {
        $events = array_map(static fn (string $step): string => "{$step}-done", self::MOVING);
        $moved = DB::table('acts')->whereIn('event', $events)->groupBy('event')
            ->selectRaw("event, SUM(COALESCE(JSON_VALUE(properties, '$.bytes'), 0)) AS bytes")->pluck('bytes', 'event');
        foreach ($moved as $event => $bytes) {
            yield [['step' => substr((string) $event, 0, -strlen('-done'))], self::whole($bytes)];
        }
    }

    /** @return list<array{array<string, string>, int}> */
    private static function bags(): array
    {
        return array_map(
            static fn (BagState $s): array => [['state' => $s->value], Bag::query()->where('state', $s)->count()],
            BagState::cases(),
        );
    }

    /** @return iterable<array{array<string, string>, int}> */
    private function almanac(): iterable
    {
        foreach (Vendor::query()->whereNotNull('refreshed_at')->get() as $vendor) {
            $age = $this->clock->now()->getTimestamp() - (int) $vendor->refreshed_at?->getTimestamp();
            yield [['vendor' => $vendor->id], max(0, $age)];
        }
    }

    /** @return list<array{array<string, string>, int}> */
    private function faults(): array
    {
        $failed = JobStep::query()->withoutGlobalScopes()
            ->where('state', StepState::Failed)
            ->whereIn('bench_job_id', BenchJob::open()->select('id'));
        $unsent = Sending::notSentSince($this->clock->now()->modify('-1 day'));

        return [
            [['of' => 'steps'], $failed->count()],
            [['of' => 'backups'], Bag::query()->where('state', BagState::Damaged)->count()],
            [['of' => 'second-place'], SecondCopy::query()->whereNotNull('problem')->count()],
            [['of' => 'messages'], $unsent->count()],
        ];
    }

    /** @return iterable<array{array<string, string>, int}> */
    private function health(): iterable
    {
        foreach ($this->health->components() as $component) {
            yield [['component' => $component->name], match ($component->state) {
                HealthState::Good => 0,
                HealthState::Warns => 1,
                HealthState::Fails => 2,
            }];
        }
    }

    /** @return iterable<array{array<string, string>, int}> */
    private static function sent(): iterable
    {
        $many = Sending::query()->toBase()->groupBy('state')->selectRaw(
            'state, COUNT(*) AS many',
        )->pluck('many', 'state');
        foreach ($many as $state => $n) {
            yield [['state' => (string) $state], self::whole($n)];
        }
    }

    private static function whole(mixed $number): int
    {
        return is_numeric($number) ? (int) $number : 0;
    }
}
