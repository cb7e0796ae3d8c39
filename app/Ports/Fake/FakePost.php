<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\Exception\NotSent;
use App\Ports\Post;

/** Keeps what is sent, or takes nothing. */
final class FakePost implements Post
{
    /** @var list<array{to: string, subject: string, text: string, id: string}> */
    public array $sent = [];

    public ?NotSent $fails = null;

    public function isSetUp(): bool
    {
        return true;
    }

    public function send(string $to, string $subject, string $text, string $id): void
    {
        $this->fails === null || throw $this->fails;
        $this->sent[] = ['to' => $to, 'subject' => $subject, 'text' => $text, 'id' => $id];
    }
}
