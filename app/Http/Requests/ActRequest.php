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

    /** What was sent, as far as the rules know it. */
    public function fields(): Fields
    {
        return Fields::of($this->validated());
    }
}
