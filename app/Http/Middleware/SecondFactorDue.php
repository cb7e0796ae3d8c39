<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use App\People\AccessRules;
use App\People\SecondFactorWanted;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Where leads are to have a second factor, one who has none yet sets it up before anything else. */
final readonly class SecondFactorDue
{
    public function __construct(private AccessRules $rules)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        $person = $request->user();
        if ($person instanceof User && $this->rules->isDueFor($person)) {
            throw new SecondFactorWanted;
        }
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }
}
