<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Exception;

interface ExchangeException extends \Throwable
{
}
