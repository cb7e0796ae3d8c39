<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit\Exception;

interface PermitException extends \Throwable
{
}
