<?php

declare(strict_types=1);

return [
    'name' => 'Jade Step',
    'env' => env('APP_ENV', 'production'),
    'debug' => (bool) env('APP_DEBUG', false),
    // names that the product is asked for by, beside that of its address
    'hosts' => array_values(array_filter(explode(',', (string) env('APP_HOSTS', '127.0.0.1,localhost,[::1]')))),
    // addresses of proxies in front whose word on the caller counts; nobody's where it is empty
    'trusted_proxies' => array_values(array_filter(explode(',', (string) env('TRUSTED_PROXIES', '')))),
    'url' => env('APP_URL', 'http://127.0.0.1:8930'),
    'timezone' => 'UTC',
    'locale' => 'en',
    'fallback_locale' => 'en',
    'faker_locale' => 'en_GB',
    'cipher' => 'AES-256-CBC',
    'key' => env('APP_KEY'),
    // while a key is being changed: what it closed opens still
    'previous_keys' => array_values(array_filter(explode(',', (string) env('APP_PREVIOUS_KEYS', '')))),
];
