<?php

declare(strict_types=1);

namespace JadeStep\Core\Watch;

/** Metrics in Prometheus' text exposition format, version 0.0.4. */
final class MetricsText
{
    public const MEDIA_TYPE = 'text/plain; version=0.0.4; charset=utf-8';

    private string $text = '';

    /**
     * One metric with all its samples.
     *
     * @param  'gauge'|'counter'  $type
     * @param  iterable<array{array<string, string>, int|float}>  $samples  labels and value
     */
    public function add(string $name, string $type, string $help, iterable $samples): void
    {
        $lines = '';
        foreach ($samples as [$labels, $value]) {
            $lines .= $name.self::labels($labels).' '.self::number($value)."\n";
        }
        $this->family($name, $type, $help, $lines);
    }

    /**
     * How much there was in all, and of how many: one metric with two samples for each set of labels.
     *
     * @param  iterable<array{array<string, string>, int|float, int}>  $samples  labels, sum and count
     */
    public function addSummary(string $name, string $help, iterable $samples): void
    {
        $lines = '';
        foreach ($samples as [$labels, $sum, $count]) {
            $of = self::labels($labels);
            $lines .= "{$name}_sum{$of} ".self::number($sum)."\n{$name}_count{$of} {$count}\n";
        }
        $this->family($name, 'summary', $help, $lines);
    }

    private function family(string $name, string $type, string $help, string $lines): void
    {
        if ($lines !== '') {
            $escaped = strtr($help, ['\\' => '\\\\', "\n" => '\n']);
            $this->text .= "# HELP {$name} {$escaped}\n# TYPE {$name} {$type}\n{$lines}";
        }
    }

    public function text(): string
    {
        return $this->text;
    }

    /** @param  array<string, string>  $labels */
    private static function labels(array $labels): string
    {
        $pairs = [];
        foreach ($labels as $name => $value) {
            $pairs[] = $name.'="'.strtr($value, ['\\' => '\\\\', '"' => '\"', "\n" => '\n']).'"';
        }

        return $pairs === [] ? '' : '{'.implode(',', $pairs).'}';
    }

    private static function number(int|float $value): string
    {
        return match (true) {
            is_int($value) => (string) $value,
            is_nan($value) => 'NaN',
            is_infinite($value) => $value > 0 ? '+Inf' : '-Inf',
            default => rtrim(rtrim(sprintf('%.6F', $value), '0'), '.'),
        };
    }
}
