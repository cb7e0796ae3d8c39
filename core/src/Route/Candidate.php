<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** A backup that might be put back, with what speaks for or against it beside its content. */
final readonly class Candidate
{
    /** @param  bool  $refused  whether the device has said no to it in this job */
    public function __construct(
        public HeldBackup $backup,
        public string $serial,
        public string $osLine,
        public bool $damaged = false,
        public bool $refused = false,
    ) {
    }
}
