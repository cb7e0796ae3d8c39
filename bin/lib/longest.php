<?php

/** Names the tests of a run that took longest, from what PHPUnit has written about it (JUnit): longest.php FILE */

declare(strict_types=1);

const MANY = 8;
$run = is_file($argv[1] ?? '') ? simplexml_load_file($argv[1]) : false;
$seconds = [];
foreach ($run === false ? [] : (array) $run->xpath('//testcase') as $test) {
    $seconds["{$test['class']}::{$test['name']}"] = (float) $test['time'];
}
arsort($seconds);
foreach (array_slice($seconds, 0, MANY) as $test => $took) {
    printf("%5.0f s  %s\n", $took, mb_substr($test, 0, 100));
}
