<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Database\Passing;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response as HttpResponse;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/**
 * Answers a request once more from its beginning where the database had a fault that passes: nothing of the first
 * attempt was kept. What comes as a file is not read twice, and answers with the fault.
 */
final class AgainWherePassing
{
    public function handle(Request $request, \Closure $next): Response
    {
        $cookies = $request->cookies->all(); // on the way in they are decrypted in their place
        for ($attempt = 1; ; $attempt++) {
            $request->cookies->replace($cookies);
            $response = $next($request);
            $fault = $response instanceof HttpResponse || $response instanceof JsonResponse
                ? $response->exception
                : null;
            if (
                $fault === null
                || $attempt === Passing::ATTEMPTS
                || ! Passing::is($fault)
                || ! self::isReadAgain($request)
            ) {
                return $response;
            }
            Passing::pause($fault, $attempt);
            app()->forgetScopedInstances();
            Auth::forgetGuards();
        }
    }

    private static function isReadAgain(Request $request): bool
    {
        return $request->isMethodCacheable() || $request->isJson() || $request->getContent() === '';
    }
}
