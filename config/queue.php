<?php

declare(strict_types=1);

return [
    'default' => env('QUEUE_CONNECTION', 'database'),
    'connections' => [
        'sync' => ['driver' => 'sync'],
        'database' => [
            'driver' => 'database',
            'table' => 'queue_jobs',
            'queue' => 'default',
            // The journal's heartbeat tells when a step has lost its worker; the queue's own timer is only a backstop.
            'retry_after' => 86_400,
            'after_commit' => true,
        ],
    ],
    'batching' => ['database' => 'mariadb', 'table' => 'queue_batches'],
    'failed' => ['driver' => 'database-uuids', 'database' => 'mariadb', 'table' => 'queue_failed'],
];
