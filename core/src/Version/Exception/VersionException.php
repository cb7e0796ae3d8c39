<?php

declare(strict_types=1);

namespace JadeStep\Core\Version\Exception;

interface VersionException extends \Throwable
{
}
