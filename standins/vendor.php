<?php

declare(strict_types=1);

// The service of every vendor, each under its id: php -S 127.0.0.1:8931 standins/vendor.php

require dirname(__DIR__).'/vendor/autoload.php';

Standins\Http\Kernel::serve(Standins\Vendor\Service::routesFromEnvironment());
