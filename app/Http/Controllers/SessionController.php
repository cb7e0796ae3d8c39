<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Middleware\PasswordAgain;
use App\Http\Middleware\StillThere;
use App\Http\Requests\ActRequest;
use App\Http\Requests\CodeRequest;
use App\Http\Requests\ConfirmRequest;
use App\Http\Requests\PreferencesRequest;
use App\Http\Requests\SignInRequest;
use App\Http\Resources\PersonResource;
use App\Models\User;
use App\People\KnownBrowser;
use App\People\SignIns;
use App\People\WrongPassword;
use App\Refusal\Refusal;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Cookie;
use Illuminate\Validation\ValidationException;
use Psr\Clock\ClockInterface;

/** Coming in and going out. */
final readonly class SessionController
{
    /** Whose password was right, and whose code is still wanted. */
    private const AWAITED = 'second_factor_of';

    private const AWAITED_SINCE = 'second_factor_since';

    private const AWAITED_SECONDS = 600;

    public function __construct(private SignIns $signIns, private ClockInterface $clock)
    {
    }

    public function signIn(SignInRequest $request): JsonResponse
    {
        $fields = $request->fields();
        try {
            $person = $this->signIns->person(
                $fields->string('email'),
                $fields->string('password'),
                (string) $request->ip(),
                $request->browser(),
            );
        } catch (WrongPassword $e) {
            throw ValidationException::withMessages(['email' => $e->getMessage()]);
        }
        if ($person->second_factor_at !== null) {
            $request->session()->regenerate(true);
            $request->session()->put([self::AWAITED => $person->id, self::AWAITED_SINCE => $this->now()]);

            return new JsonResponse(['secondFactor' => true], 202);
        }

        return $this->enter($request, $person);
    }

    public function code(CodeRequest $request): JsonResponse
    {
        $session = $request->hasSession() ? $request->session() : null;
        $since = $session?->get(self::AWAITED_SINCE, 0);
        $person = is_int($since) && $this->now() - $since <= self::AWAITED_SECONDS
            ? User::query()->where('removed_at', null)->find($session?->get(self::AWAITED))
            : null;
        $person instanceof User || throw Refusal::notNow('Give the address and the password first.');
        $this->signIns->assertCode($person, $request->fields()->string('code'), (string) $request->ip());

        return $this->enter($request, $person);
    }

    public function show(ActRequest $request): PersonResource
    {
        return new PersonResource($request->person());
    }

    public function prefer(PreferencesRequest $request): PersonResource
    {
        $person = $request->person();
        $person->update(['preferences' => $request->preferences()->told() + ($person->preferences ?? [])]);

        return new PersonResource($request->person());
    }

    /** For the few minutes after this, what wants the password again is done without asking. */
    public function confirm(ConfirmRequest $request, PasswordAgain $again): Response
    {
        $request->hasSession() || throw Refusal::notNow('A token for scripts cannot do what wants a password.');
        try {
            $this->signIns->assertPassword(
                $request->person(),
                $request->fields()->string('password'),
                (string) $request->ip(),
            );
        } catch (WrongPassword) {
            throw ValidationException::withMessages(['password' => 'This is not your password.']);
        }
        $again->confirm($request->session()->getId());

        return response()->noContent();
    }

    public function signOut(ActRequest $request): Response
    {
        $this->signIns->noteOut($request->person(), (string) $request->ip());
        $this->guard()->logout();
        if ($request->hasSession()) {
            $request->session()->invalidate();
            $request->session()->regenerateToken();
        }

        return response()->noContent()->withHeaders(['Clear-Site-Data' => '"cache"']);
    }

    private function enter(Request $request, User $person): JsonResponse
    {
        $this->guard()->login($person);
        $request->session()->regenerate(true);
        $request->session()->forget([self::AWAITED, self::AWAITED_SINCE]);
        $request->session()->put(StillThere::SIGNED_IN, $this->now());
        $this->signIns->noteIn($person, (string) $request->ip());
        $known = KnownBrowser::told($request->cookies->get(KnownBrowser::COOKIE));
        $known = $known?->person === $person->id ? $known : KnownBrowser::fresh($person->id);
        Cookie::queue(Cookie::make(
            KnownBrowser::COOKIE,
            $known->cookie(),
            KnownBrowser::MINUTES,
            secure: $request->isSecure(),
            httpOnly: true,
            sameSite: 'strict',
        ));

        return new JsonResponse(new PersonResource($person));
    }

    private function now(): int
    {
        return $this->clock->now()->getTimestamp();
    }

    /** The session's own guard: behind Sanctum's, which cannot sign anybody in or out. */
    private function guard(): StatefulGuard
    {
        $guard = Auth::guard('web');
        assert($guard instanceof StatefulGuard);

        return $guard;
    }
}
