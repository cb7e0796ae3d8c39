<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class SignInRequest extends ActRequest
{
    public function rules(): array
    {
        return ['email' => ['required', 'string', 'email', 'max:200'], 'password' => ['required', 'string', 'max:200']];
    }
}
