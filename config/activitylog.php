<?php

declare(strict_types=1);

use App\Models\JournalLine;

return [
    'enabled' => true,
    'delete_records_older_than_days' => 36500, // nothing is ever deleted: the table takes no deletion
    'default_log_name' => 'bench',
    'default_auth_driver' => null,
    'subject_returns_soft_deleted_models' => false,
    'activity_model' => JournalLine::class,
    'table_name' => 'acts',
    'database_connection' => null,
];
