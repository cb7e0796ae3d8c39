<?php

declare(strict_types=1);

return [
    'default' => 'daily',
    'channels' => [
        'daily' => [
            'driver' => 'daily',
            'path' => storage_path('logs/jade.log'),
            'level' => env('LOG_LEVEL', 'info'),
            'days' => 14,
        ],
        'null' => ['driver' => 'monolog', 'handler' => Monolog\Handler\NullHandler::class],
        'emergency' => ['path' => storage_path('logs/jade.log')],
    ],
];
