<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Models\User;
use Illuminate\Foundation\Http\FormRequest;
use JadeStep\Core\Exchange\Fields;

/** What somebody who is signed in asks for. Rules are those of the request itself; none where it takes nothing. */
class ActRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [];
    }

    public function person(): User
    {
        $user = $this->user();

        return $user instanceof User ? $user : throw new \LogicException('Behind the door everybody is signed in.');
    }

    /** How many bytes the sender said that the body has; null where that was not said. */
    public function announcedBytes(): ?int
    {
        $length = $this->headers->get('Content-Length');

        return is_string($length) && ctype_digit($length) ? (int) $length : null;
    }

    /** What was sent, as far as the rules know it. */
    public function fields(): Fields
    {
        return Fields::of($this->validated());
    }
}
