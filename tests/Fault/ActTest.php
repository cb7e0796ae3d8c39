<?php

declare(strict_types=1);

namespace Tests\Fault;

final class ActTest extends ActTestCase
{
    protected function seeds(): array
    {
        return range(1, 5);
    }
}
