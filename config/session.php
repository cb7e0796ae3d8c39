<?php

declare(strict_types=1);

return [
    'driver' => 'database',
    'connection' => 'mariadb',
    'table' => 'sessions',
    // Minutes. A session ends when nobody has done anything for so long; pages that only look keep none open.
    'idle' => (int) env('SESSION_IDLE_MINUTES', 30),
    'lifetime' => 720,
    'expire_on_close' => false,
    'encrypt' => false,
    'lottery' => [2, 100],
    'cookie' => 'jade_step_session_'.env('APP_PORT', '8930'),
    'path' => '/',
    'domain' => null,
    'secure' => false, // where TLS is, App\Http\Middleware\SecureCookies says otherwise
    'http_only' => true,
    'same_site' => 'lax',
];
