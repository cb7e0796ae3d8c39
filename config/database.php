<?php

declare(strict_types=1);

$mariadb = [
    'driver' => 'mariadb',
    'host' => explode(',', (string) env('DB_HOST', '127.0.0.1')), // in the order in which they are asked
    'port' => env('DB_PORT', '8933'),
    'database' => env('DB_DATABASE', 'jade_step'),
    'charset' => 'utf8mb4',
    'collation' => 'utf8mb4_unicode_ci',
    'prefix' => '',
    'strict' => true,
    'engine' => 'InnoDB',
    'timezone' => '+00:00',
    'options' => [PDO::ATTR_EMULATE_PREPARES => true, PDO::MYSQL_ATTR_MULTI_STATEMENTS => false],
];

return [
    'default' => 'mariadb',
    'connections' => [
        'mariadb' => [
            ...$mariadb,
            'username' => env('DB_USERNAME', 'jade_step'),
            'password' => env('DB_PASSWORD', ''),
        ],
        // who may make and change tables: known to migrations, and to no process that runs on
        'owner' => [
            ...$mariadb,
            'username' => env('DB_OWNER_USERNAME', ''),
            'password' => env('DB_OWNER_PASSWORD', ''),
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
