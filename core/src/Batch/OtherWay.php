<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** Another route that a device of a batch could take. */
final readonly class OtherWay
{
    /**
     * @param  list<BatchStep>  $steps
     * @param  string  $trade  what it costs, in words
     */
    public function __construct(public string $route, public array $steps, public string $trade)
    {
    }
}
