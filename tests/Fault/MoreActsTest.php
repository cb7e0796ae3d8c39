<?php

declare(strict_types=1);

namespace Tests\Fault;

final class MoreActsTest extends ActTestCase
{
    protected function seeds(): array
    {
        return range(6, 10);
    }
}
