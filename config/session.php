<?php

declare(strict_types=1);

return [
    'driver' => 'database',
    'connection' => 'mariadb',
    'table' => 'sessions',
    'lifetime' => 720,
    'expire_on_close' => false,
    'encrypt' => false,
    'lottery' => [2, 100],
    'cookie' => 'jade_step_session_'.env('APP_PORT', '8930'),
    'path' => '/',
    'domain' => null,
    'secure' => env('SESSION_SECURE', false),
    'http_only' => true,
    'same_site' => 'lax',
];
