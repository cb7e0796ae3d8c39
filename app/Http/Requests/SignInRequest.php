<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\People\KnownBrowser;

final class SignInRequest extends ActRequest
{
    public function rules(): array
    {
        return ['email' => ['required', 'string', 'email', 'max:200'], 'password' => ['required', 'string', 'max:500']];
    }

    public function browser(): ?KnownBrowser
    {
        return KnownBrowser::told($this->cookies->get(KnownBrowser::COOKIE));
    }
}
