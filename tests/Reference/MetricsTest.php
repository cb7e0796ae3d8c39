<?php

declare(strict_types=1);

namespace Tests\Reference;

use JadeStep\Core\Watch\MetricsText;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** Metrics as Prometheus' own library for Python reads them (Debian's python3-prometheus-client). */
final class MetricsTest extends TestCase
{
    public function test_the_library_reads_back_what_was_written(): void
    {
        $m = new MetricsText;
        $m->add(
            'jade_step_jobs',
            'gauge',
            "Open jobs\nby stage",
            [[['stage' => 'choose'], 3], [['stage' => 'a"b\\c'], 0]],
        );
        $m->add('jade_step_bytes_moved_total', 'counter', 'Bytes', [[['step' => 'back-up'], 9_007_199_254_740_991]]);
        $m->add('jade_step_wait_seconds', 'gauge', 'Wait', [[[], 0.25], [['of' => 'x'], INF], [['of' => 'y'], 1e-7]]);
        $m->addSummary('jade_step_step_seconds', 'Took', [[['step' => 'install'], 120.5, 2]]);
        $m->add('jade_step_nothing', 'gauge', 'Without samples it is not told', []);

        self::assertSame([
            ['jade_step_jobs', 'gauge', [
                ['jade_step_jobs', ['stage' => 'choose'], '3.0'],
                ['jade_step_jobs', ['stage' => 'a"b\\c'], '0.0'],
            ]],
            ['jade_step_bytes_moved', 'counter', [
                ['jade_step_bytes_moved_total', ['step' => 'back-up'], '9007199254740991.0'],
            ]],
            ['jade_step_wait_seconds', 'gauge', [
                ['jade_step_wait_seconds', [], '0.25'],
                ['jade_step_wait_seconds', ['of' => 'x'], 'inf'],
                ['jade_step_wait_seconds', ['of' => 'y'], '0.0'],
            ]],
            ['jade_step_step_seconds', 'summary', [
                ['jade_step_step_seconds_sum', ['step' => 'install'], '120.5'],
                ['jade_step_step_seconds_count', ['step' => 'install'], '2.0'],
            ]],
        ], self::read($m->text()));
    }

    /** @return list<array{string, string, list<array{string, array<string, string>, string}>}> */
    public static function read(string $text): array
    {
        $python = new Process(['python3', '-c', <<<'PY'
            import json, sys
            from prometheus_client.parser import text_string_to_metric_families
            print(json.dumps([[f.name, f.type, [[s.name, s.labels, repr(s.value)] for s in f.samples]]
                for f in text_string_to_metric_families(sys.stdin.read())]))
            PY], null, null, $text);
        $told = json_decode($python->mustRun()->getOutput(), true, 512, JSON_THROW_ON_ERROR);

        return is_array($told) ? array_values($told) : [];
    }
}
