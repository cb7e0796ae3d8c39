<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** What a device tells of having fetched its owner's cloud backup, or of having refused it. */
final readonly class CloudFetch
{
    /** @param  string  $words  what the device says, where it refused it */
    public function __construct(public bool $refused, public string $words = '')
    {
    }
}
