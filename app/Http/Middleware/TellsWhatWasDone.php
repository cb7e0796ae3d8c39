<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Journal\LastDone;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Beside each answer: what the act did in words, percent-encoded (`X-Done`), and a name of this start of the server
 * (`X-Started`), by which a page that stayed open sees that it was started again.
 */
final readonly class TellsWhatWasDone
{
    public function __construct(private LastDone $done)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        $response = $next($request);
        assert($response instanceof Response);
        $started = config()->string('jade.started');
        if ($started !== '') {
            $response->headers->set('X-Started', $started);
        }
        $words = $this->done->words();
        if ($words !== null && $response->isSuccessful() && ! $request->isMethodSafe()) {
            $response->headers->set('X-Done', rawurlencode($words));
        }

        return $response;
    }
}
