<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

enum HoldingKind: string
{
    case Bag = 'bag';
    case Package = 'package';
}
