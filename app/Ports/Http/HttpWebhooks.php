<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\LinkLost;
use App\Ports\Exception\NotSent;
use App\Ports\Webhooks;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Factory;
use JadeStep\Core\Watch\WebhookSignature;
use Psr\Clock\ClockInterface;

/** Whatever answers with 2xx has taken it; a redirection is not followed. */
final readonly class HttpWebhooks implements Webhooks
{
    private const SECONDS = 10;

    public function __construct(private Factory $http, private ClockInterface $clock)
    {
    }

    public function send(string $address, array $body, string $id, #[\SensitiveParameter] string $secret): void
    {
        $text = json_encode($body, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR);
        $headers = WebhookSignature::headers($id, $this->clock->now()->getTimestamp(), $text, $secret);
        try {
            $answer = $this->http
                ->timeout(self::SECONDS)
                ->connectTimeout(self::SECONDS)
                ->withOptions(['curl' => AllowedAddresses::ofWebhooks()->toAsk($address, 'It')])
                ->withoutRedirecting()
                ->withHeaders($headers)
                ->withBody($text, 'application/json')
                ->post($address);
        } catch (ConnectionException|LinkLost $e) {
            throw new NotSent("It does not answer: {$e->getMessage()}", false, $e);
        }
        $answer->successful() || throw new NotSent("It answered {$answer->status()}, and not that it has taken it.");
    }
}
