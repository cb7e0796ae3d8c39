<?php

/**
 * Names every line of code or text that is longer than 120 characters, and ends with 1 where there is one or where no
 * file was found. A table's row and a picture in a text cannot be broken. A copy of the code without its history is
 * looked at as a checkout is: what .gitignore names is left out.
 */

declare(strict_types=1);

use Symfony\Component\Finder\Finder;

require __DIR__.'/../../vendor/autoload.php';

const COLUMNS = 120;
$kinds = ['*.php', '*.svelte', '*.ts', '*.js', '*.css', '*.py', '*.sh', '*.xml', '*.md'];
$checked = dirname(__DIR__, 2);
$files = (new Finder)
    ->files()
    ->in($checked)
    ->ignoreDotFiles(false)
    ->ignoreVCSIgnored(true)
    ->exclude(['.git', 'vendor', 'node_modules', 'var'])
    ->filter(
        static fn (SplFileInfo $file): bool => in_array("*.{$file->getExtension()}", $kinds, true)
            || preg_match('~/(bin|\.ci)/[^.]+\z~', $file->getPathname()) === 1,
    );
$long = [];
foreach ($files as $file) {
    foreach (file($file->getPathname(), FILE_IGNORE_NEW_LINES) ?: [] as $at => $line) {
        $isWhole = $file->getExtension() === 'md' && preg_match('/^\||!\[/', $line) === 1;
        $columns = mb_strlen($line);
        $isWhole || $columns <= COLUMNS || $long[] = "{$file->getRelativePathname()}:".($at + 1).": {$columns} columns";
    }
}
$many = count($files);
echo implode("\n", $long === [] ? ["{$many} files"] : $long), "\n";
exit($many === 0 || $long !== [] ? 1 : 0);
