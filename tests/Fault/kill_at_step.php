<?php

declare(strict_types=1);

// Waits until a worker of one of the given process groups runs a step of a code, and kills all of the groups at that
// moment: php kill_at_step.php DSN USER PASSWORD CODE GROUP ...; prints the step's number and its claim.

[, $dsn, $user, $password, $code] = $argv;
$groups = array_map(intval(...), array_slice($argv, 5));
$steps = (new PDO($dsn, $user, $password))->prepare(
    "SELECT id, claim FROM job_steps WHERE code = ? AND state = 'running' AND claim IS NOT NULL",
);
while (true) {
    $steps->execute([$code]);
    foreach ($steps->fetchAll(PDO::FETCH_ASSOC) as $step) {
        if (in_array(@posix_getpgid((int) $step['claim']), $groups, true)) {
            foreach ($groups as $group) {
                posix_kill(-$group, SIGKILL);
            }
            echo json_encode($step);
            exit;
        }
    }
    usleep(1500);
}
