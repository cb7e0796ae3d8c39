<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\NotSent;

/** Sends mail, as plain text. */
interface Post
{
    public function isSetUp(): bool;

    /**
     * @param  string  $id  by which the same mail is known, should it come twice
     *
     * @throws NotSent
     */
    public function send(string $to, string $subject, string $text, string $id): void;
}
