<?php

declare(strict_types=1);

return [
    'default' => env('CACHE_STORE', 'database'),
    'stores' => [
        'array' => ['driver' => 'array', 'serialize' => false],
        'database' => [
            'driver' => 'database',
            'connection' => 'mariadb',
            'table' => 'cache',
            'lock_table' => 'cache_locks',
        ],
    ],
    'prefix' => 'jade_step_',
];
