<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use Illuminate\Http\Request;

/**
 * A file that somebody who is signed in sends as it is. It is no form request: those hold the whole body in memory, and
 * a backup is larger than that.
 */
final readonly class SentFile
{
    public function __construct(private Request $request)
    {
    }

    public function person(): User
    {
        $user = $this->request->user();

        return $user instanceof User ? $user : throw new \LogicException('Behind the door everybody is signed in.');
    }

    /** What its sender calls it. */
    public function name(string $otherwise): string
    {
        return $this->request->query->getString('name', $otherwise);
    }

    /** @return resource its bytes, as they come */
    public function body()
    {
        return $this->request->getContent(true);
    }

    /** How many bytes the sender said that it has; null where that was not said. */
    public function announcedBytes(): ?int
    {
        $length = $this->request->headers->get('Content-Length');

        return is_string($length) && ctype_digit($length) ? (int) $length : null;
    }
}
