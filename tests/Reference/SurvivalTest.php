<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Forecast\CurveStep;
use JadeStep\Core\Forecast\Lasted;
use JadeStep\Core\Forecast\SurvivalCurve;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/**
 * How long windows hold, estimated as R's survival package (T. Therneau; Debian's r-cran-survival) does on the data
 * sets that come with it: aml (Embury and others, 1977), lung (Loprinzi and others, 1994), veteran (Kalbfleisch and
 * Prentice, 1980).
 */
final class SurvivalTest extends TestCase
{
    private const EXACT = 1e-9;

    /** @var array<string, string>|null */
    private static ?array $told = null;

    /** @return iterable<string, array{string, float|null}> the data as R selects it, and an age that is reached */
    public static function dataSets(): iterable
    {
        yield 'aml' => ['aml[, c("time", "status")]', null];
        yield 'aml, maintained' => ['subset(aml, x == "Maintained")[, c("time", "status")]', null];
        yield 'aml, not maintained, whose last ends' => [
            'subset(aml, x == "Nonmaintained")[, c("time", "status")]',
            null,
        ];
        yield 'lung' => ['data.frame(time = lung$time, status = lung$status - 1)', null];
        yield 'lung, women' => ['with(subset(lung, sex == 2), data.frame(time, status = status - 1))', null];
        yield 'veteran' => ['veteran[, c("time", "status")]', null];
        yield 'veteran, squamous, whose last is not seen to end' => [
            'subset(veteran, celltype == "squamous")[, c("time", "status")]',
            null,
        ];
        // R counts what ends at the very age among those that reached it; between two days there is no such thing
        yield 'aml, of those older than 20 weeks' => ['aml[, c("time", "status")]', 20.5];
        yield 'lung, of those older than 200 days' => [
            'data.frame(time = lung$time, status = lung$status - 1)',
            200.5,
        ];
        yield 'veteran, of those older than 100 days' => ['veteran[, c("time", "status")]', 100.5];
    }

    #[DataProvider('dataSets')]
    public function test_estimates_errors_intervals_and_quartiles_are_those_of_r(string $data, ?float $age): void
    {
        $told = self::survfit($data, $age);
        $curve = $age === null ? SurvivalCurve::of($told['lasted']) : SurvivalCurve::ofAge($age, $told['lasted']);

        self::assertGreaterThan(5, count($told['steps']));
        self::assertCount(count($told['steps']), $curve->steps);
        foreach ($curve->steps as $i => $step) {
            self::assertStep($told['steps'][$i], $step);
        }
        foreach ($told['quartiles'] as $name => $time) {
            self::assertSameNumber($time, $curve->timeOfShare(1 - (float) $name / 100), "quartile {$name}");
        }
    }

    private static function assertStep(Fields $told, CurveStep $step): void
    {
        $at = "at {$step->time}";
        self::assertSame($told->float('time'), $step->time);
        self::assertSame([$told->int('risk'), $told->int('event'), $told->int('censor')], [
            $step->atRisk, $step->ended, $step->lastSeen,
        ], $at);
        self::assertSameNumber($told->float('surv'), $step->survival, "chance {$at}");
        if ($step->survival > 0) {
            self::assertSameNumber($told->float('error'), $step->standardError(), "standard error {$at}");
        }
        if ($step->survival > 0 && $step->survival < 1) {
            self::assertSameNumber($told->float('lower'), $step->interval()?->low, "lower bound {$at}");
            self::assertSameNumber($told->float('upper'), $step->interval()?->high, "upper bound {$at}");
        } else {
            self::assertNull($step->interval(), $at);
        }
    }

    private static function assertSameNumber(?float $expected, ?float $found, string $what): void
    {
        self::assertSame($expected === null, $found === null, $what);
        self::assertEqualsWithDelta((float) $expected, (float) $found, self::EXACT, $what);
    }

    /** @return array{lasted: list<Lasted>, steps: list<Fields>, quartiles: array<string, float|null>} */
    private static function survfit(string $data, ?float $age): array
    {
        self::$told ??= self::askR();
        [$rows, $rest] = explode("steps\n", self::$told["{$data} {$age}"], 2);
        [$steps, $quartiles] = explode("quartiles\n", $rest, 2);
        $byName = [];
        foreach (self::rows($quartiles) as [$name, $time]) {
            $byName[(string) $name] = is_nan($time) ? null : $time;
        }

        return [
            'lasted' => array_map(
                static fn (array $r): Lasted => $r[1] === 1.0 ? Lasted::until($r[0]) : Lasted::atLeast($r[0]),
                self::rows($rows),
            ),
            'steps' => array_map(self::step(...), self::rows($steps)),
            'quartiles' => $byName,
        ];
    }

    /** @return array<string, string> what it answers to each of the data sets: it is started once for all */
    private static function askR(): array
    {
        $script = <<<'R'
            suppressPackageStartupMessages(library(survival))
            row <- function(...) cat(paste(format(c(...), digits = 17, trim = TRUE), collapse = " "), "\n")
            tell <- function(d, ...) {
                for (i in seq_len(nrow(d))) row(d$time[i], d$status[i])
                cat("steps\n")
                f <- survfit(Surv(time, status) ~ 1, data = d, conf.type = "log-log", ...)
                for (i in seq_along(f$time)) row(f$time[i], f$n.risk[i], f$n.event[i], f$n.censor[i], f$surv[i],
                    f$surv[i] * f$std.err[i], f$lower[i], f$upper[i])
                cat("quartiles\n")
                q <- quantile(f, probs = c(0.25, 0.5, 0.75), conf.int = FALSE)
                for (i in 1:3) row(as.numeric(names(q)[i]), q[i])
            }
            R;
        $names = [];
        foreach (self::dataSets() as [$data, $age]) {
            $names[] = "{$data} {$age}";
            $start = $age === null ? '' : ", start.time = {$age}";
            $script .= "\ncat(\"next\\n\")\ntell({$data}{$start})";
        }
        $r = new Process(['Rscript', '--vanilla', '-e', $script], null, ['LC_ALL' => 'C.UTF-8']);
        $answers = explode("next\n", $r->mustRun()->getOutput());

        return array_combine($names, array_slice($answers, 1));
    }

    /** @param  list<float>  $row */
    private static function step(array $row): Fields
    {
        [$time, $risk, $event, $censor, $surv, $error, $lower, $upper] = $row;

        return Fields::of(compact('time', 'surv', 'error', 'lower', 'upper')
            + ['risk' => (int) $risk, 'event' => (int) $event, 'censor' => (int) $censor]);
    }

    /** @return list<list<float>> */
    private static function rows(string $text): array
    {
        return array_map(
            static fn (string $line): array => array_map(
                static fn (string $n): float => in_array($n, ['NA', 'NaN'], true) ? NAN : (float) $n,
                explode(' ', trim($line)),
            ),
            array_values(array_filter(explode("\n", $text), static fn (string $l): bool => trim($l) !== '')),
        );
    }
}
