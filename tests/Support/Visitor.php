<?php

declare(strict_types=1);

namespace Tests\Support;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use Psr\Http\Message\ResponseInterface;
use Tests\Install\Installed;

/** Somebody who talks to a running instance over HTTP, as the browser does. */
final readonly class Visitor
{
    private function __construct(private Client $http, private CookieJar $cookies, private string $address)
    {
    }

    public static function signIn(
        string $address,
        string $email = 'bench@skerry.example',
        string $password = 'tide-table-9',
    ): self {
        $visitor = new self(new Client(['http_errors' => false, 'timeout' => 30]), new CookieJar, $address);
        $answer = $visitor->send('POST', '/session', ['email' => $email, 'password' => $password]);
        if ($answer->getStatusCode() !== 200) {
            throw new \RuntimeException("Signing in failed: {$answer->getBody()}");
        }

        return $visitor;
    }

    /** The lead of an installation, which answers over TLS by a certificate of its own making. */
    public static function toShop(Installed $shop): self
    {
        $http = new Client([
            'http_errors' => false,
            'timeout' => 30,
            'verify' => "/etc/{$shop->name}/tls/authority.pem",
            'curl' => [CURLOPT_RESOLVE => [Installed::HOST.":{$shop->port}:127.0.0.1"]],
        ]);
        $visitor = new self($http, new CookieJar, $shop->address());
        [$email, $password] = Installed::LEAD;
        $answer = $visitor->send('POST', '/session', ['email' => $email, 'password' => $password]);
        $again = $visitor->send('POST', '/session/confirmation', ['password' => $password]);

        return [$answer->getStatusCode(), $again->getStatusCode()] === [200, 204]
            ? $visitor
            : throw new \RuntimeException("Signing in failed: {$answer->getBody()} {$again->getBody()}");
    }

    /** @param  array<string, mixed>  $body */
    public function send(
        string $method,
        string $path,
        array $body = [],
        bool $withToken = true,
        int $seconds = 30,
    ): ResponseInterface {
        $token = rawurldecode((string) $this->cookies->getCookieByName('XSRF-TOKEN')?->getValue());

        return $this->http->request($method, "{$this->address}/api/v1{$path}", [
            'cookies' => $this->cookies,
            'json' => (object) $body,
            'timeout' => $seconds,
            'headers' => ['Accept' => 'application/json']
                + ($withToken ? ['X-XSRF-TOKEN' => $token] : []),
        ]);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function ask(string $method, string $path, array $body = []): array
    {
        $answer = $this->send($method, $path, $body);
        $json = json_decode((string) $answer->getBody(), true);
        if ($answer->getStatusCode() >= 400 || ! is_array($json)) {
            throw new \RuntimeException("{$method} {$path} answered {$answer->getStatusCode()}: {$answer->getBody()}");
        }

        return $json;
    }

    public function openJobAndTakeTheRoute(string $serial): int
    {
        $job = $this->ask('POST', '/jobs', ['serial' => $serial])['id'];
        RunningSystem::waitUntil(
            fn (): bool => $this->step($job, 'choose-route')['state'] === 'needs-hand',
            30,
            'the device was not read',
        );
        $route = $this->ask('GET', "/jobs/{$job}")['plan']['routes'][0];
        $this->ask('PUT', "/jobs/{$job}/route", [
            'route' => $route['id'],
            'build' => $route['legs'][0]['to']['build'],
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ]);

        return $job;
    }

    /** @return array<string, mixed> */
    public function step(int $job, string $code): array
    {
        return array_column($this->ask('GET', "/jobs/{$job}")['steps'], null, 'code')[$code];
    }
}
