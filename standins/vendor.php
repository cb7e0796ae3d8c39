<?php

declare(strict_types=1);

// The service of every vendor, each under its id: bin/service vendor

require dirname(__DIR__).'/vendor/autoload.php';

Standins\Http\Kernel::serve(Standins\Vendor\Service::routesFromEnvironment());
