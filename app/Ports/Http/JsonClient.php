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

    private const PIECE_BYTES = 524_288;

    /** A connection over which nothing comes for so long is given up. */
    private const SILENT_SECONDS = 48;

    public function __construct(
        private Factory $http,
        private string $address,
        public string $name,
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
        $stream = $response->toPsrResponse()->getBody()->detach() ?? throw LinkLost::to($this->name);
        stream_set_chunk_size($stream, self::PIECE_BYTES); // PHP reads 8 KiB at a time otherwise

        return [$stream, $response];
    }

    /** @param  callable(PendingRequest): Response  $call */
    private function ask(callable $call): Response
    {
        $curl = $this->allowed->toAsk($this->address, $this->name);
        $request = $this->http
            ->baseUrl($this->address)
            ->connectTimeout(self::CONNECT_SECONDS)
            ->timeout(self::ANSWER_SECONDS)
            ->withOptions(['allow_redirects' => false, 'expect' => false] + ($curl === [] ? [] : ['curl' => $curl]));
        try {
            $response = $call($request);
        } catch (ConnectionException|TransferException $e) {
            throw LinkLost::to($this->name, $e);
        }
        if ($response->serverError() || $response->redirect()) {
            throw LinkLost::to($this->name);
        }
        if ($response->failed()) {
            throw $this->refusal($response->status(), $response->body());
        }

        return $response;
    }

    /** A path whose parts are percent-encoded segment by segment. */
    public static function path(string ...$parts): string
    {
        return implode('/', array_map(rawurlencode(...), explode('/', implode('/', $parts))));
    }

    /**
     * A request that is carried out beside others, over connections that are kept.
     *
     * @param  array<int, mixed>  $options  of curl
     *
     * @throws LinkLost where the address may not be asked
     */
    public function request(string $path, array $options): \CurlHandle
    {
        $curl = $this->allowed->toAsk($this->address, $this->name);
        $handle = curl_init(rtrim($this->address, '/').$path);
        $handle !== false || throw LinkLost::to($this->name);
        curl_setopt_array($handle, $options + $curl + [
            CURLOPT_CONNECTTIMEOUT => self::CONNECT_SECONDS,
            CURLOPT_LOW_SPEED_LIMIT => 1,
            CURLOPT_LOW_SPEED_TIME => self::SILENT_SECONDS,
            CURLOPT_FOLLOWLOCATION => false,
            CURLOPT_TCP_NODELAY => true,
            CURLOPT_BUFFERSIZE => self::PIECE_BYTES,
        ]);

        return $handle;
    }

    /**
     * What an answer that is no success says.
     *
     * @throws LinkLost where it is none of the device's
     */
    public function refusal(int $status, string $text): Declined
    {
        $status >= 400 && $status < 500 || throw LinkLost::to($this->name);
        $told = json_decode($text, true, 8);

        return self::declinedBy(is_array($told) ? $told : [], $status);
    }

    /** @param  array<mixed>  $problem */
    public static function declinedBy(array $problem, int $status): Declined
    {
        $told = Fields::of($problem);

        return new Declined(
            $told->maybeString('code') ?? 'refused',
            $told->maybeString('detail') ?? 'It said no without a reason.',
            $status,
        );
    }
}
