<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\People\PasswordWanted;
use Illuminate\Http\Request;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Response;

/**
 * Before people, keys and what cannot be had back: the person at the screen is asked for the password once more, which
 * holds for a few minutes. A personal token has none to give, and does none of this.
 */
final readonly class PasswordAgain
{
    public const CONFIRMED = 'password_confirmed_at';

    private const SECONDS = 300;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function handle(Request $request, \Closure $next): Response
    {
        $this->assertConfirmed($request);
        $response = $next($request);
        assert($response instanceof Response);

        return $response;
    }

    public function assertConfirmed(Request $request): void
    {
        $at = $request->hasSession() ? $request->session()->get(self::CONFIRMED) : null;
        is_int($at) && $this->clock->now()->getTimestamp() - $at <= self::SECONDS || throw new PasswordWanted;
    }
}
