<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * Before anything of a request is read: it is for this host, its address is text, and its body is no larger than may
 * come in. The web server holds bodies against the same limits; here they hold whatever stands in front.
 */
final class HoldRequest
{
    private const MEBIBYTE = 1_048_576;

    /** Bodies that are written away as they come, and are never JSON. */
    private const STREAMED = ['api/v1/shelf/imports', 'api/v1/packages'];

    private const USUAL_MEBIBYTES = 2;

    /** What holds documents and tables, in MiB: what their formats allow, and how much longer JSON writes it. */
    private const LARGER = ['api/v1/almanac/import*' => 64, 'api/v1/intake/batch*' => 16, 'api/v1/plan' => 16];

    public function handle(Request $request, \Closure $next): Response
    {
        in_array($request->getHost(), self::hosts(), true) || throw new HttpException(
            400,
            'This server is not known by that name. Ask for it by the name in its settings (APP_HOSTS).',
        );
        mb_check_encoding(rawurldecode($request->getRequestUri()), 'UTF-8')
            || throw new HttpException(400, 'The address holds bytes that are no text (UTF-8).');
        $streamed = $request->isMethod('POST') && $request->is(...self::STREAMED);
        ! $streamed || ! $request->isJson() || throw new HttpException(
            415,
            'Send the bytes themselves here, as application/octet-stream or application/zip.',
        );
        $most = self::mebibytes($request);
        if (! $streamed && (int) $request->headers->get('Content-Length', '0') > $most * self::MEBIBYTE) {
            throw new HttpException(413, "This is larger than may be sent here ({$most} MiB). Send less at once.");
        }
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }

    private static function mebibytes(Request $request): int
    {
        foreach (self::LARGER as $pattern => $most) {
            if ($request->is($pattern)) {
                return $most;
            }
        }

        return self::USUAL_MEBIBYTES;
    }

    /** @return array<mixed> */
    private static function hosts(): array
    {
        $own = parse_url(config()->string('app.url'), PHP_URL_HOST);

        return [is_string($own) ? $own : 'localhost', ...config()->array('app.hosts')];
    }
}
