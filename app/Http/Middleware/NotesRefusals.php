<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpFoundation\Response;

/** What somebody asked for whose role does not allow it stands in the Journal; of many in a minute, the first. */
final readonly class NotesRefusals
{
    private const LINES_A_MINUTE = 30;

    public function __construct(private Journal $journal)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        $response = $next($request);
        assert($response instanceof Response);
        $person = $request->user();
        $route = $request->route();
        if ($response->getStatusCode() === 403 && $person instanceof User && $route instanceof Route) {
            RateLimiter::attempt("refused:{$person->id}", self::LINES_A_MINUTE, fn () => $this->journal->noteDeed(
                Deed::BeRefused,
                $person,
                new Evidence(['what' => "{$request->method()} /{$route->uri()}", 'from' => $request->ip()]),
            ));
        }

        return $response;
    }
}
