<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\NotSent;

/** Tells another program something, signed so that it knows who does. */
interface Webhooks
{
    /**
     * @param  array<string, mixed>  $body
     * @param  string  $id  by which the same message is known, should it come twice
     *
     * @throws NotSent
     */
    public function send(string $address, array $body, string $id, #[\SensitiveParameter] string $secret): void;
}
