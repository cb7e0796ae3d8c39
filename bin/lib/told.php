<?php

/**
 * Tells at the end of a run what Tests\Support\ToldTests has written of it: the tests that took longest, those that
 * were skipped with the reason of each, and how many passed, failed and were skipped: told.php FILE
 * Ends with 1 where no test ran.
 */

declare(strict_types=1);

const MANY = 8;
$seconds = [];
$counts = ['passed' => 0, 'failed' => 0, 'skipped' => 0];
$skipped = [];
foreach (is_file($argv[1] ?? '') ? file($argv[1], FILE_IGNORE_NEW_LINES) ?: [] : [] as $line) {
    [$outcome, $took, $test, $reason] = explode("\t", $line, 4);
    $counts[$outcome]++;
    $seconds[$test] = (float) $took;
    if ($outcome === 'skipped') {
        $skipped[] = "  {$test}: {$reason}";
    }
}
if ($seconds === []) {
    echo "No test was run.\n";
    exit(1);
}
arsort($seconds);
sort($skipped);
echo "The longest:\n";
foreach (array_slice($seconds, 0, MANY) as $test => $took) {
    printf("%5.0f s  %s\n", $took, mb_substr($test, 0, 110));
}
echo $skipped === [] ? '' : "Skipped, and why:\n".implode("\n", $skipped)."\n";
echo "{$counts['passed']} passed, {$counts['failed']} failed, {$counts['skipped']} skipped\n";
