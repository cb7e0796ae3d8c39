<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

enum Treatment: string
{
    case AsIs = 'as-is';
    case Lowered = 'lowered';
    case None = 'none';
}
