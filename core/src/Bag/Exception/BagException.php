<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

interface BagException extends \Throwable
{
}
