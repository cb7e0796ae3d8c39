<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\Webhooks;

/** Keeps what is sent. */
final class FakeWebhooks implements Webhooks
{
    /** @var list<array{address: string, body: array<string, mixed>, id: string}> */
    public array $sent = [];

    public function send(string $address, array $body, string $id, #[\SensitiveParameter] string $secret): void
    {
        $this->sent[] = ['address' => $address, 'body' => $body, 'id' => $id];
    }
}
