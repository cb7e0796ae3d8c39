<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * A body is no larger than may come in there, and where files come in it is none that is read into memory. The web
 * server holds bodies to the same first (deploy/site.conf), since JSON is read before anything else of a request is
 * looked at; here it holds for what comes another way.
 */
final class HoldBody
{
    private const MEBIBYTE = 1_048_576;

    /** Bodies that are written away as they come, and are never JSON. */
    private const STREAMED = ['api/v1/shelf/imports', 'api/v1/packages'];

    private const USUAL_MEBIBYTES = 2;

    /** What holds documents and tables, in MiB: what their formats allow, and how much longer JSON writes it. */
    private const LARGER = ['api/v1/almanac/import*' => 64, 'api/v1/intake/batch*' => 16, 'api/v1/plan' => 16];

    public function handle(Request $request, \Closure $next): Response
    {
        if ($request->isMethod('POST') && self::is($request, ...self::STREAMED)) {
            self::holdStreamed($request);
        } else {
            self::holdOther($request);
        }
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }

    private static function holdStreamed(Request $request): void
    {
        ! $request->isJson() || throw new HttpException(
            415,
            'Send the bytes themselves here, as application/octet-stream or application/zip.',
        );
        $request->headers->get('Transfer-Encoding') === null || throw new HttpException(
            411,
            'Say how long the file is (Content-Length), so that one that is cut on its way is known.',
        );
    }

    private static function holdOther(Request $request): void
    {
        $most = self::USUAL_MEBIBYTES;
        foreach (self::LARGER as $pattern => $mebibytes) {
            $most = self::is($request, $pattern) ? $mebibytes : $most;
        }
        if ((int) $request->headers->get('Content-Length', '0') > $most * self::MEBIBYTE) {
            throw new HttpException(413, "This is larger than may be sent here ({$most} MiB). Send less at once.");
        }
    }

    /** Also where the path is no text, which is refused later. */
    private static function is(Request $request, string ...$patterns): bool
    {
        foreach ($patterns as $pattern) {
            if (fnmatch("/{$pattern}", $request->getPathInfo())) {
                return true;
            }
        }

        return false;
    }
}
