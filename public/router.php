<?php

declare(strict_types=1);

// For PHP's own web server: files that are there are served by it, everything else by the application.

$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH);
if ($path !== '/' && ! str_ends_with($path, '.php') && ! str_contains($path, '..') && is_file(__DIR__.$path)) {
    return false;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';

require __DIR__.'/index.php';
