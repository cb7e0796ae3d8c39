<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Audit\ActCode;
use App\Audit\Chronicle;
use App\Models\Bag;
use App\Models\BenchJob;
use Closure;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Has every act of a person written into the Journal, and every act on a job that was refused. */
final readonly class WritesTheJournal
{
    /** Never written down, whatever the route. */
    private const SECRETS = ['passphrase', 'again', 'password'];

    /** What the bench itself says no to; other errors are no acts. */
    private const REFUSED = [409, 422];

    private const LONGEST = 500;

    public function __construct(private Chronicle $chronicle)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $named = $this->named($request); // before the act, which may delete what it names
        $response = $next($request);
        $act = ActCode::of($request->method(), (string) $request->route()?->uri());
        $refused = $response->getStatusCode() >= 400;
        if ($act === null || ($refused && ($named['job'] === null || ! in_array($response->getStatusCode(), self::REFUSED, true)))) {
            return $response;
        }
        [$code, $words] = $act;
        $job = $named['job'] ?? $this->opened($response);
        $evidence = $named['facts'] + self::said($request) + ($refused ? ['refused' => self::told($response, 'code') ?? 'refused'] : []);
        $this->chronicle->note($refused ? "{$code}-refused" : $code, $refused ? "{$words}: refused" : $words, $job, $evidence, $request->user(), $named['serial'] ?? $job?->serial);

        return $response;
    }

    /** @return array{job: BenchJob|null, serial: string|null, facts: array<string, mixed>} */
    private function named(Request $request): array
    {
        $parameters = $request->route()?->parameters() ?? [];
        $job = $parameters['job'] ?? null;
        $bag = $parameters['bag'] ?? null;
        $facts = array_map(static fn (mixed $p): mixed => match (true) {
            $p instanceof Model => $p->getKey(), $p instanceof \BackedEnum => $p->value, default => $p
        }, array_diff_key($parameters, ['job' => 1]));

        return [
            'job' => $job instanceof BenchJob ? $job : null,
            'serial' => match (true) {
                $job instanceof BenchJob => $job->serial, $bag instanceof Bag => $bag->serial, is_string($parameters['serial'] ?? null) => $parameters['serial'], default => null
            },
            'facts' => $facts,
        ];
    }

    private function opened(Response $response): ?BenchJob
    {
        $id = $response->getStatusCode() === 201 ? self::told($response, 'id') : null;

        return is_int($id) && self::told($response, 'serial') !== null ? BenchJob::query()->find($id) : null;
    }

    private static function told(Response $response, string $field): mixed
    {
        return $response instanceof JsonResponse ? ($response->getData(true)[$field] ?? null) : null;
    }

    /** @return array<string, mixed> what was sent, cut, without secrets and files */
    private static function said(Request $request): array
    {
        $said = $request->isJson() ? $request->json()->all() : [];

        return array_map(static fn (mixed $v): mixed => match (true) {
            is_string($v) => mb_substr($v, 0, self::LONGEST),
            // lists of things (items of an owner, say) are told by their number
            is_array($v) && array_is_list($v) && is_array($v[0] ?? null) => count($v),
            default => $v,
        }, array_diff_key($said, array_flip(self::SECRETS)));
    }
}
