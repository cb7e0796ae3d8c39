<?php

/**
 * Names every line of code or text that is longer than 120 characters, and ends with 1 where there is one. A table's
 * row and a picture in a text cannot be broken.
 */

declare(strict_types=1);

chdir(dirname(__DIR__, 2));
$kinds = ['*.php', '*.svelte', '*.ts', '*.js', '*.css', '*.py', '*.sh', '*.xml', '*.md', 'bin', '.ci'];
exec('git ls-files --cached --others --exclude-standard -- '.implode(' ', array_map('escapeshellarg', $kinds)), $files);
$long = [];
foreach (array_filter($files, 'is_file') as $file) {
    foreach (file($file, FILE_IGNORE_NEW_LINES) ?: [] as $at => $line) {
        $isWhole = str_ends_with($file, '.md') && preg_match('/^\||!\[/', $line) === 1;
        $isWhole || mb_strlen($line) <= 120 || $long[] = "{$file}:".($at + 1).': '.mb_strlen($line).' columns';
    }
}
echo implode("\n", $long === [] ? [count($files).' files'] : $long), "\n";
exit($files === [] || $long !== [] ? 1 : 0);
