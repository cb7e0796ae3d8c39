<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Response;

/**
 * A session ends when nobody has done anything in it for a while, and in any case after half a day. What a page asks by
 * itself, it says (`X-By-Itself`), and that keeps no session open.
 */
final readonly class StillThere
{
    public const SIGNED_IN = 'signed_in_at';

    private const LAST_ACT = 'last_act_at';

    private const LONGEST_SECONDS = 43_200;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        if ($request->hasSession() && Auth::guard('web')->check()) {
            $session = $request->session();
            $now = $this->clock->now()->getTimestamp();
            $since = static fn (string $what): int => $now - (is_int($at = $session->get($what, $now)) ? $at : 0);
            if (
                $since(self::LAST_ACT) > 60 * config()->integer('session.idle')
                || $since(self::SIGNED_IN) > self::LONGEST_SECONDS
            ) {
                $session->invalidate();
                Auth::forgetGuards();

                throw new AuthenticationException('You were away for a while: sign in again. Nothing was lost.');
            }
            if (! $request->headers->has('X-By-Itself')) {
                $session->put(self::LAST_ACT, $now);
            }
        }
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }
}
