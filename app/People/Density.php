<?php

declare(strict_types=1);

namespace App\People;

enum Density: string
{
    case Roomy = 'roomy';
    case Close = 'close';
}
