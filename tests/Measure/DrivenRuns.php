<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\FinishSpan;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Copied;
use JadeStep\Core\Job\Need;
use JadeStep\Core\Route\Minutes;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Standins\Rig\Fleet;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Fault\InstallRuns;

/**
 * Twelve phones by two technicians at eight ports of the practice rig, end to end, again and again: does the span that
 * was promised for the last hand-over hold it?
 *
 * The devices, their ways and what comes after what are the product's own batch, its schedule and its simulation the
 * core's. People's times are the planner's three-point times at the rig's speed, drawn by each run's seed. What runs by
 * itself takes seconds here where it takes minutes elsewhere, so its times are those that the runs before have
 * measured, with what they wait for workers; the first runs only measure. After each run the core plays the schedule
 * with the times that everything really took; how far off the clock that was at most is told.
 */
final class DrivenRuns
{
    private const SPEED = 60;

    private const DEVICES = 12;

    /** So many only measure, before anything is promised, and so many of the latest are known at any time. */
    private const KNOWN = 10;

    /** @var list<array<string, non-empty-list<float>>> seconds, by step, of the latest runs */
    private array $took = [];

    /** In seconds, by how much a run played with its own times was off at most. */
    private float $farthestOff = 0.0;

    private function __construct(private readonly InstallRuns $rig, private readonly OutputInterface $output)
    {
    }

    /** @param  int  $from  the first seed */
    public static function drive(int $runs, int $from, OutputInterface $output): void
    {
        $self = new self(InstallRuns::harmless(self::SPEED, self::DEVICES), $output);
        for ($before = 1; $before <= self::KNOWN; $before++) {
            $output->writeln(sprintf('measured in %.1f s', $self->run(-$before)[1]));
        }
        $held = 0;
        for ($seed = $from; $seed < $from + $runs; $seed++) {
            $held += $self->isHeld($seed) ? 1 : 0;
        }
        $self->tellTimes();
        $output->writeln("The promised span held the actual finish in {$held} of {$runs} runs.");
        $output->writeln(sprintf('Played with its own times, a run was off by %.2f s at most.', $self->farthestOff));
        $self->rig->stop();
    }

    private function isHeld(int $seed): bool
    {
        [$known, $before] = [$this->took, self::machine()];
        [$schedule, $seconds, $driven] = $this->run($seed);
        $taken = array_map(static fn (int $now, int $then): int => $now - $then, self::machine(), $before);
        $batch = $schedule->batch;
        $span = self::promised($schedule, $driven->planned, $known, $seed);
        $isHeld = $span->holds($batch->after($seconds));
        $played = Simulation::finishes($schedule, $driven->asItWas($batch), $seed, 1)[0];
        $this->farthestOff = max($this->farthestOff, abs($played - $seconds));
        $this->output->writeln(sprintf(
            'seed %3d: promised %5.1f to %5.1f s, done after %5.1f s%s',
            $seed,
            $batch->seconds($span->from),
            $batch->seconds($span->until),
            $seconds,
            $isHeld ? '' : ', not held',
        ));
        $this->output->writeln(sprintf(
            '    played with its own times %.1f s; turns: %.0f s in hand, %.0f s on top; %.0f %% of the machine taken',
            $played,
            ...[...$driven->turns(), 100 * $taken[1] / max(1, $taken[0])],
        ));

        return $isHeld;
    }

    /** @return array{int, int} ticks since the machine began: all, and those that its host gave to others (proc(5)) */
    private static function machine(): array
    {
        preg_match('/^cpu +([\d ]+)$/m', (string) file_get_contents('/proc/stat'), $found);
        $ticks = array_map(intval(...), explode(' ', $found[1] ?? ''));

        return [array_sum(array_slice($ticks, 0, 8)), $ticks[7] ?? 0];
    }

    /**
     * @return array{Schedule, float, DrivenBatch} what was gone by, after how many seconds the last was handed over,
     *   and what was driven
     */
    private function run(int $seed): array
    {
        $this->rig->tidy();
        $driven = DrivenBatch::of($this->rig->system(), Fleet::phones(self::DEVICES), "Run {$seed}");
        $known = $this->took === [] ? null : new StepTimes($this->took);
        $schedule = Scheduler::schedule(self::timed($driven->planned, $known), Effort::small(abs($seed)));
        $seconds = $driven->drive($schedule, self::hands($driven, $seed));
        $this->took = array_slice([...$this->took, $driven->took()], -self::KNOWN);

        return [$schedule, $seconds, $driven];
    }

    /**
     * As it may go if it goes as in one of the runs before. Times of one run go up and down together, since a busy
     * machine slows all of it, which draws from all runs together would average away: so it is played with the times
     * of each run for itself.
     *
     * @param  list<array<string, non-empty-list<float>>>  $known  of the runs before, seconds by step
     */
    private static function promised(Schedule $schedule, Batch $planned, array $known, int $seed): FinishSpan
    {
        $finishes = array_map(
            static fn (array $run): array => Simulation::finishes(
                $schedule,
                self::timed($planned, new StepTimes([$run])),
                $seed,
            ),
            $known,
        );

        return FinishSpan::of($schedule->batch, array_merge(...$finishes));
    }

    /** How long a step is expected to take here, with all that comes on top. */
    private static function expected(BatchStep $step, ?StepTimes $known): Minutes
    {
        $inHand = self::inHand($step->minutes);
        if ($known === null) {
            return $inHand;
        }

        return $known->minutes($step->name, DrivenBatch::isByHand($step->name) ? $inHand : null);
    }

    private static function inHand(Minutes $planned): Minutes
    {
        return Minutes::of(
            $planned->low / self::SPEED,
            $planned->likely / self::SPEED,
            $planned->high / self::SPEED,
        );
    }

    /**
     * The same batch with other times. What was measured holds what steps wait for a worker or the disk, so that only
     * ports and hands are still short.
     *
     * @param  StepTimes|null  $known  null before any run
     */
    private static function timed(Batch $planned, ?StepTimes $known): Batch
    {
        $steps = static fn (BatchStep $s): BatchStep => Copied::with(
            $s,
            minutes: self::expected($s, $known),
            needs: DrivenBatch::isByHand($s->name) ? [Need::Port->value, Need::Hands->value] : [Need::Port->value],
        );
        $shop = Workshop::of(DrivenBatch::PORTS, DrivenBatch::TECHNICIANS, 1, 1, 1, WorkingHours::always());
        $devices = static fn (BatchDevice $d): BatchDevice => Copied::with(
            $d,
            steps: array_map($steps, $d->steps),
            others: [],
        );
        $fetch = $known?->minutes(DrivenBatch::FETCH) ?? Minutes::none();
        $fetches = static fn (PackageFetch $p): PackageFetch => new PackageFetch($p->name, $fetch);

        return Copied::with(
            $planned->in($shop),
            devices: array_map($devices, $planned->devices),
            fetches: array_map($fetches, $planned->fetches),
        );
    }

    /** @return \Closure(string): float for how many seconds a turn of a step is in hand, drawn by the seed */
    private static function hands(DrivenBatch $driven, int $seed): \Closure
    {
        $chance = new Randomizer(new Mt19937($seed));
        $planned = array_column($driven->planned->devices[0]->steps, 'minutes', 'name');

        return static fn (string $step): float => 60 * self::drawn(self::inHand($planned[$step]), $chance);
    }

    /**
     * One draw from the beta distribution with PERT's mean and deviation, by rejection: apart from the core's own way
     * of drawing.
     */
    private static function drawn(Minutes $minutes, Randomizer $chance): float
    {
        $width = $minutes->high - $minutes->low;
        $mean = ($minutes->expected - $minutes->low) / $width;
        $size = 36 * $mean * (1 - $mean) - 1;
        [$a, $b] = [$mean * $size - 1, (1 - $mean) * $size - 1];
        $density = static fn (float $x): float => $x ** $a * (1 - $x) ** $b;
        $most = $density($a / ($a + $b));
        do {
            $x = self::uniform($chance);
        } while (self::uniform($chance) * $most > $density($x));

        return $minutes->low + $width * $x;
    }

    private static function uniform(Randomizer $chance): float
    {
        return $chance->getInt(0, 0x7FFFFFFF) / 0x7FFFFFFF;
    }

    private function tellTimes(): void
    {
        $this->output->writeln('Seconds by step, as the latest runs measured them (of turns what came on top):');
        foreach ((new StepTimes($this->took))->all() as $what => [$many, $minutes]) {
            $this->output->writeln(sprintf(
                '%-16s %5d times  %5.2f  %5.2f  %5.2f',
                $what,
                $many,
                60 * $minutes->low,
                60 * $minutes->likely,
                60 * $minutes->high,
            ));
        }
    }
}
