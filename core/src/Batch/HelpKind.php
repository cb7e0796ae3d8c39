<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** What could be changed so that a batch makes it. */
enum HelpKind: string
{
    case OneMorePort = 'one-more-port';
    case OneMoreTechnician = 'one-more-technician';
    case EarlierStart = 'earlier-start';
    case OtherRoute = 'other-route';
}
