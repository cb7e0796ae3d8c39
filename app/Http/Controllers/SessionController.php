<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\SignInRequest;
use App\Http\Resources\PersonResource;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Validation\ValidationException;

final class SessionController
{
    public function signIn(SignInRequest $request): PersonResource
    {
        if (! $this->guard()->attempt($request->safe(['email', 'password']))) {
            throw ValidationException::withMessages([
                'email' => 'This address and password do not belong together. Check both and try again.',
            ]);
        }
        $request->session()->regenerate();

        return new PersonResource($request->user());
    }

    public function show(Request $request): PersonResource
    {
        return new PersonResource($request->user());
    }

    public function signOut(Request $request): Response
    {
        $this->guard()->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }

    /** The session's own guard: behind Sanctum's, which cannot sign anybody in or out. */
    private function guard(): StatefulGuard
    {
        $guard = Auth::guard('web');
        assert($guard instanceof StatefulGuard);

        return $guard;
    }
}
