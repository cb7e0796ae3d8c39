<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/** A request is for a host of ours, as trusted proxies tell it, and its address is text. */
final class KnownHost
{
    public function handle(Request $request, \Closure $next): Response
    {
        in_array($request->getHost(), self::hosts(), true) || throw new HttpException(
            400,
            'This server is not known by that name. Ask for it by the name in its settings (APP_HOSTS).',
        );
        mb_check_encoding(rawurldecode($request->getRequestUri()), 'UTF-8')
            || throw new HttpException(400, 'The address holds bytes that are no text (UTF-8).');
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }

    /** @return array<mixed> */
    private static function hosts(): array
    {
        $own = parse_url(config()->string('app.url'), PHP_URL_HOST);

        return [is_string($own) ? $own : 'localhost', ...config()->array('app.hosts')];
    }
}
