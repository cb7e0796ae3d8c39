<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Wherever TLS is, cookies go over TLS only, and the session's bears the prefix that makes browsers see to it. */
final class SecureCookies
{
    public function handle(Request $request, \Closure $next): Response
    {
        if ($request->isSecure()) {
            config(['session.secure' => true, 'session.cookie' => '__Host-jade_step_session']);
        }
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }
}
