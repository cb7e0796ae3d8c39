<?php

declare(strict_types=1);

// The device link with simulated devices: bin/service rig

require dirname(__DIR__).'/vendor/autoload.php';

Standins\Http\Kernel::serve(Standins\Rig\Service::fromEnvironment()->routes());
