<?php

declare(strict_types=1);

// The device link with simulated devices: php -S 127.0.0.1:8932 standins/rig.php

require dirname(__DIR__).'/vendor/autoload.php';

Standins\Http\Kernel::serve(Standins\Rig\Service::fromEnvironment()->routes());
