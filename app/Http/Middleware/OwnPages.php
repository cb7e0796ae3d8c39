<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Contracts\Session\Session;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Request;
use Illuminate\Session\TokenMismatchException;

/**
 * Only the product's own pages act for who is signed in: what changes something comes from this origin, and where there
 * is a session with its token. Who comes with a personal token has no session, and no browser that sends it unasked.
 */
final class OwnPages extends ValidateCsrfToken
{
    public function handle($request, \Closure $next): mixed
    {
        assert($request instanceof Request);
        if (! $this->isReading($request) && ! self::isOwn($request)) {
            throw new TokenMismatchException('Another page asked for this.');
        }

        // a session that holds nothing stands for nobody, and has no token that a page could know
        $stands = $request->hasSession() && SessionIfAny::isWorthKeeping($request->session());
        if ($stands && ! self::signsIn($request)) {
            return parent::handle($request, $next);
        }
        $response = $next($request);
        // who has just signed in is told the token of their session
        if ($request->hasSession() && $this->shouldAddXsrfTokenCookie()) {
            $this->addCookieToResponse($request, $response);
        }

        return $response;
    }

    public function shouldAddXsrfTokenCookie(): bool
    {
        return parent::shouldAddXsrfTokenCookie() && SessionIfAny::isWorthKeeping(app(Session::class));
    }

    private static function isOwn(Request $request): bool
    {
        $origin = $request->headers->get('Origin');
        $site = $request->headers->get('Sec-Fetch-Site');

        return ($origin === null || $origin === $request->getSchemeAndHttpHost())
            && ($site === null || in_array($site, ['same-origin', 'none'], true));
    }

    /** Nobody is signed in yet, so that there is no session whose token could be asked for. */
    private static function signsIn(Request $request): bool
    {
        return $request->isMethod('POST') && $request->is('api/v1/session') && ! session()->has('signed_in_at');
    }
}
