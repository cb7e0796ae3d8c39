<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use GuzzleHttp\Exception\TransferException;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Factory;
use Illuminate\Http\Client\PendingRequest;
use Illuminate\Http\Client\Response;
use JadeStep\Core\Exchange\Fields;
use Psr\Http\Message\StreamInterface;

/** Talks to one service; turns silence into LinkLost and problem details (RFC 9457) into Declined. */
final readonly class JsonClient
{
    private const CONNECT_SECONDS = 3;

    private const ANSWER_SECONDS = 30;

    /**
     * A stream that gives nothing for so long gives an empty piece, so that who reads it can say that it is still
     * there.
     */
    private const PIECE_SECONDS = 4;

    public function __construct(
        private Factory $http,
        private string $address,
        private string $name,
        private AllowedAddresses $allowed,
    ) {
    }

    /** @param  int  $seconds  how long an answer may take */
    public function get(string $path, int $seconds = self::ANSWER_SECONDS): Response
    {
        return $this->ask(static fn (PendingRequest $r): Response => $r->timeout($seconds)->get($path));
    }

    /** @param  array<string, mixed>  $body */
    public function post(string $path, array $body = []): Response
    {
        return $this->ask(
            fn (PendingRequest $r): Response => $body === []
                ? $r->withBody('{}', 'application/json')->post($path)
                : $r->asJson()->post($path, $body),
        );
    }

    public function send(string $method, string $path, Fields $body): Response
    {
        return $this->ask(
            static fn (PendingRequest $r): Response => $r->send($method, $path, ['json' => (object) $body->all()]),
        );
    }

    /** @param  array<string, string>  $headers */
    public function put(string $path, string|StreamInterface $bytes, array $headers = []): Response
    {
        return $this->ask(
            fn (PendingRequest $r): Response => $r
                ->withHeaders($headers)
                ->withBody($bytes, 'application/octet-stream')
                ->put($path),
        );
    }

    /**
     * @param  array<string, string>  $headers
     * @return array{resource, Response} the body as a stream
     */
    public function stream(string $path, array $headers = []): array
    {
        $response = $this->ask(
            fn (PendingRequest $r): Response => $r
                ->withHeaders($headers)
                ->withOptions(['stream' => true, 'read_timeout' => self::PIECE_SECONDS])
                ->get($path),
        );
        $stream = $response->toPsrResponse()->getBody()->detach();

        return [$stream ?? throw LinkLost::to($this->name), $response];
    }

    /** @param  callable(PendingRequest): Response  $call */
    private function ask(callable $call): Response
    {
        $asked = $this->allowed->asked($this->address);
        $asked['why'] === null || throw new LinkLost("{$this->name} is not asked: {$asked['why']}");
        $request = $this->http
            ->baseUrl($this->address)
            ->connectTimeout(self::CONNECT_SECONDS)
            ->timeout(self::ANSWER_SECONDS)
            ->withOptions($asked['options']);
        try {
            $response = $call($request);
        } catch (ConnectionException|TransferException $e) {
            throw LinkLost::to($this->name, $e);
        }
        if ($response->serverError() || $response->redirect()) {
            throw LinkLost::to($this->name);
        }
        if ($response->failed()) {
            throw self::declined($response);
        }

        return $response;
    }

    private static function declined(Response $response): Declined
    {
        $told = $response->json();
        $problem = Fields::of(is_array($told) ? $told : []);

        return new Declined(
            $problem->maybeString('code') ?? 'refused',
            $problem->maybeString('detail') ?? 'It said no without a reason.',
            $response->status(),
        );
    }
}
