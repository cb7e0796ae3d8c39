<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Refusal\Refusal;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Symfony\Component\HttpFoundation\Response;

/** A vendor's file as large as the formats allow takes more memory than other requests: it gets it, one at a time. */
final class OneLargeFile
{
    private const LARGE_CHARACTERS = 1_000_000;

    private const MEMORY = '1G';

    private const LONGEST_SECONDS = 300;

    public function handle(Request $request, \Closure $next): Response
    {
        $lock = Cache::lock('one-large-file', self::LONGEST_SECONDS);
        $large = (int) $request->headers->get('Content-Length', '0') > self::LARGE_CHARACTERS;
        if ($large) {
            if ($lock->get() !== true) {
                throw Refusal::notNow('Another large file is being read. Try again in a moment.');
            }
            ini_set('memory_limit', self::MEMORY);
        }
        try {
            $response = $next($request);
            assert($response instanceof Response);

            return $response;
        } finally {
            if ($large) {
                $lock->release();
            }
        }
    }
}
