<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\People\PasswordWanted;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Response;

/**
 * Before people, keys and what cannot be had back: the person at the screen is asked for the password once more, which
 * holds for a few minutes. A personal token has none to give, and does none of this.
 *
 * It is kept beside the session and not in it: a page asks several things at once, and each answer writes the whole
 * session as it was when its question came.
 */
final readonly class PasswordAgain
{
    private const SECONDS = 300;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        $this->assertConfirmed($request);
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }

    public function assertConfirmed(Request $request): void
    {
        $at = $request->hasSession() ? Cache::get(self::key($request->session()->getId())) : null;
        is_int($at) && $this->clock->now()->getTimestamp() - $at <= self::SECONDS || throw new PasswordWanted;
    }

    /** @param  string  $session  id of the session in which the password was given, and was right */
    public function confirm(string $session): void
    {
        Cache::put(self::key($session), $this->clock->now()->getTimestamp(), self::SECONDS);
    }

    /** The id of a session opens it, and stands nowhere else in the clear. */
    private static function key(string $session): string
    {
        return 'password-given:'.hash('sha256', $session);
    }
}
