<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Contracts\Session\Session;
use Illuminate\Http\Request;
use Illuminate\Session\Middleware\StartSession;
use Symfony\Component\HttpFoundation\Response;

/**
 * A session is there for who has one and for who signs in. Whoever else asks is answered without, and leaves no row
 * behind.
 */
final class SessionIfAny extends StartSession
{
    /** What Laravel puts into any session; one that holds nothing else is not worth keeping. */
    private const OF_ITSELF = ['_token', '_flash', '_previous'];

    public function handle($request, \Closure $next): mixed
    {
        assert($request instanceof Request);
        $session = $this->manager->driver();
        assert($session instanceof Session);
        $wanted = $request->cookies->has($session->getName())
            || $session->isStarted()
            || ($request->isMethod('POST') && $request->is('api/v1/session'));

        return $wanted ? parent::handle($request, $next) : $next($request);
    }

    public static function isWorthKeeping(Session $session): bool
    {
        return array_diff(array_keys($session->all()), self::OF_ITSELF) !== [];
    }

    protected function saveSession($request): void
    {
        if (self::isWorthKeeping($request->session())) {
            parent::saveSession($request);
        }
    }

    protected function addCookieToResponse(Response $response, Session $session): void
    {
        if (self::isWorthKeeping($session)) {
            parent::addCookieToResponse($response, $session);
        }
    }
}
