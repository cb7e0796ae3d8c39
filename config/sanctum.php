<?php

declare(strict_types=1);

return [
    'stateful' => [], // sessions are App\Http\Middleware\SessionIfAny's
    'routes' => false,
    'guard' => ['web'],
    'expiration' => null,
];
