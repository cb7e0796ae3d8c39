<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * What every answer tells the browser: to run and show what comes from here only, to be framed by nobody, to guess no
 * content type, and to name no address to others (OWASP ASVS 4.0.3, 14.4; `deploy/headers.conf` says it for files).
 */
final class SafeHeaders
{
    private const POLICY = [
        'default-src' => "'none'",
        'script-src' => "'self'",
        'style-src' => "'self'",
        'img-src' => "'self' data: blob:",
        'font-src' => "'self'",
        'connect-src' => "'self'",
        'base-uri' => "'none'",
        'form-action' => "'self'",
        'frame-ancestors' => "'none'",
    ];

    private const YEAR = 31_536_000;

    public function handle(Request $request, \Closure $next): Response
    {
        $response = $next($request);
        assert($response instanceof Response);
        $headers = $response->headers;
        if (! $headers->has('Content-Security-Policy')) {
            $headers->set('Content-Security-Policy', self::policy());
        }
        $headers->set('X-Content-Type-Options', 'nosniff');
        $headers->set('X-Frame-Options', 'DENY');
        $headers->set('Referrer-Policy', 'same-origin');
        $headers->set('Cross-Origin-Opener-Policy', 'same-origin');
        $headers->set('Cross-Origin-Resource-Policy', 'same-origin');
        $headers->set('Permissions-Policy', 'camera=(self), geolocation=(), microphone=(), payment=(), usb=()');
        if ($request->isSecure()) {
            $headers->set('Strict-Transport-Security', 'max-age='.self::YEAR);
        }

        return $response;
    }

    private static function policy(): string
    {
        $policy = self::POLICY;
        $hot = public_path('hot');
        if (! app()->isProduction() && is_file($hot)) {
            // the development server of the front end, which sends styles as scripts
            $server = trim((string) file_get_contents($hot));
            foreach (['script-src', 'font-src', 'img-src'] as $what) {
                $policy[$what] .= " {$server}";
            }
            $policy['style-src'] .= " 'unsafe-inline'";
            $policy['connect-src'] .= " {$server} ".(string) preg_replace('/^http/', 'ws', $server);
        }

        $parts = [];
        foreach ($policy as $what => $from) {
            $parts[] = "{$what} {$from}";
        }

        return implode('; ', $parts);
    }
}
