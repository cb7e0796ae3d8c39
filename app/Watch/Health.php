<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Bag;
use App\Models\Bench;
use App\Models\HeldCatalogue;
use App\Models\JobStep;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Models\Sending;
use App\Models\Vendor;
use App\Ports\Post;
use App\SecondPlace\Place;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Amount;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\StepState;
use Psr\Clock\ClockInterface;

/** How the instance is, part by part, for whoever is called at night. Names no owner, device or person. */
final readonly class Health
{
    private const LONG_WAIT_SECONDS = 120;

    public function __construct(
        private Disk $disk,
        private WorkerBeats $beats,
        private OwnBackups $own,
        private Post $post,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<Component> */
    public function components(): array
    {
        return [
            self::database(),
            $this->workers(),
            $this->queue(),
            $this->disk('bags', 'disk for backups'),
            $this->disk('packages', 'disk for packages'),
            ...$this->links(),
            ...$this->vendors(),
            self::bags(),
            self::secondPlace(),
            $this->ownBackup(),
            $this->messages(),
        ];
    }

    /** @param  list<Component>  $components */
    public static function worst(array $components): HealthState
    {
        $states = array_map(static fn (Component $c): HealthState => $c->state, $components);

        return match (true) {
            in_array(HealthState::Fails, $states, true) => HealthState::Fails,
            in_array(HealthState::Warns, $states, true) => HealthState::Warns,
            default => HealthState::Good,
        };
    }

    /** @return float seconds that the longest waiting call for a worker has waited */
    public function queueWait(): float
    {
        $oldest = DB::table('queue_jobs')->whereNull('reserved_at')->min('available_at');

        return is_numeric($oldest) ? max(0.0, $this->clock->now()->getTimestamp() - (float) $oldest) : 0.0;
    }

    private static function database(): Component
    {
        DB::select('SELECT 1'); // where it does not answer, the answer to this is 503 as a whole

        return new Component('database', HealthState::Good, 'It answers.');
    }

    private function workers(): Component
    {
        $heard = $this->beats->heard();
        $running = JobStep::query()->withoutGlobalScopes()->where('state', StepState::Running)
            ->where('heartbeat_at', '>=', $this->clock->now()->modify('-'.WorkerBeats::HEARD_SECONDS.' seconds'))
            ->count();

        return $heard + $running > 0
            ? new Component('workers', HealthState::Good, "{$heard} heard of lately, {$running} steps running.")
            : new Component('workers', HealthState::Fails, 'None is heard of: no step goes on. Start the workers.');
    }

    private function queue(): Component
    {
        $wait = $this->queueWait();

        return $wait <= self::LONG_WAIT_SECONDS
            ? new Component('queue', HealthState::Good, 'The longest wait is '.round($wait).' s.')
            : new Component('queue', HealthState::Warns, 'Something has waited for a worker for '.round($wait / 60)
                .' minutes. Start more workers, or see what those that are there do.');
    }

    /** @param  'bags'|'packages'  $what */
    private function disk(string $what, string $name): Component
    {
        $free = $this->disk->free($what);
        $words = Amount::there($free).' are free.';

        return match (true) {
            $free < Amount::GIGABYTE => new Component(
                $name,
                HealthState::Fails,
                "{$words} Nothing more can be backed up. Make room: delete what is due, or keep it on a larger disk.",
            ),
            $what === 'bags' && $this->disk->isNearlyFull() => new Component(
                $name,
                HealthState::Warns,
                "{$words} Delete what is due, or keep backups on a larger disk.",
            ),
            default => new Component($name, HealthState::Good, $words),
        };
    }

    /** @return list<Component> */
    private function links(): array
    {
        $old = $this->clock->now()->modify('-60 seconds');

        return array_values(Bench::query()->get()->map(
            static fn (Bench $b): Component => $b->seen_at !== null && $b->seen_at > $old
                ? new Component("device link of {$b->name}", HealthState::Good, 'It answers.')
                : new Component("device link of {$b->name}", HealthState::Warns, 'It is silent: no device of this '
                    .'bench can be worked on. See that it runs where the devices are plugged in.'),
        )->all());
    }

    /** @return list<Component> */
    private function vendors(): array
    {
        return array_values(Vendor::query()->whereNotNull('address')->get()->map(
            fn (Vendor $v): Component => $this->vendor($v),
        )->all());
    }

    private function vendor(Vendor $vendor): Component
    {
        $name = "almanac of {$vendor->name}";
        $fresh = HeldCatalogue::query()->where('vendor', $vendor->id)->whereNull('withdrawn_at')->max('fresh_until');
        $isFresh = is_string($fresh) && new \DateTimeImmutable($fresh, new \DateTimeZone('UTC')) > $this->clock->now();

        return match (true) {
            ! $isFresh => new Component($name, HealthState::Fails, 'It is stale: nothing counts as signed, and no '
                .'line is crossed. '.($vendor->problem->detail ?? 'Refresh it in the Almanac.')),
            $vendor->problem !== null => new Component($name, HealthState::Warns, $vendor->problem->detail),
            default => new Component($name, HealthState::Good, 'It is fresh.'),
        };
    }

    private static function bags(): Component
    {
        $damaged = Bag::query()->where('state', BagState::Damaged)->count();

        return $damaged === 0
            ? new Component('backups', HealthState::Good, 'None is known to be damaged.')
            : new Component('backups', HealthState::Warns, "{$damaged} found damaged; the Shelf names them.");
    }

    private static function secondPlace(): Component
    {
        $worst = SecondCopy::query()->whereNotNull('problem')->latest('tries')->first();

        return match (true) {
            Place::read() === null => new Component('second place', HealthState::Warns, 'There is none: all backups '
                .'lie on one disk. Set one up in Settings.'),
            $worst?->problem !== null => new Component('second place', HealthState::Warns, $worst->problem->detail),
            default => new Component('second place', HealthState::Good, self::copies()),
        };
    }

    private static function copies(): string
    {
        $there = SecondCopy::query()->where('state', SecondCopyState::There)->count();
        $others = SecondCopy::query()->count() - $there;

        return "{$there} copies are there".($others > 0 ? ", {$others} on the way." : '.');
    }

    private function ownBackup(): Component
    {
        $last = $this->own->last();
        $old = $this->own->isOld();

        return match (true) {
            $last === null => new Component('own backup', HealthState::Warns, 'There never was one. Run bin/backup, '
                .'each day.'),
            $old !== null => new Component('own backup', HealthState::Warns, "{$old} See why its timer did not run."),
            default => new Component(
                'own backup',
                HealthState::Good,
                'It was made '.$last->format('Y-m-d H:i').' UTC.',
            ),
        };
    }

    private function messages(): Component
    {
        $not = Sending::notSentSince($this->clock->now()->modify('-1 day'))->count();
        $how = $this->post->isSetUp() ? '' : ' No mail server is set up.';

        return $not === 0
            ? new Component('messages', HealthState::Good, "None failed within a day.{$how}")
            : new Component(
                'messages',
                HealthState::Warns,
                "{$not} did not go out within a day; Settings name them.{$how}",
            );
    }
}
