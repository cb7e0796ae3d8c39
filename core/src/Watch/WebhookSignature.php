<?php

declare(strict_types=1);

namespace JadeStep\Core\Watch;

/**
 * Signs what is sent to a webhook, so that whoever receives it knows who sent it, and when: HMAC-SHA256 (RFC 2104) of
 * `ID.TIMESTAMP.BODY`, in base64, behind `v1,`. These are the headers that the Standard Webhooks specification names
 * (from memory).
 */
final class WebhookSignature
{
    /** So far may the clocks of both be apart. */
    public const TOLERANCE_SECONDS = 300;

    /** @return array<string, string> headers */
    public static function headers(
        string $id,
        int $timestamp,
        string $body,
        #[\SensitiveParameter] string $secret,
    ): array {
        $mac = hash_hmac('sha256', "{$id}.{$timestamp}.{$body}", $secret, true);

        return [
            'webhook-id' => $id,
            'webhook-timestamp' => (string) $timestamp,
            'webhook-signature' => 'v1,'.base64_encode($mac),
        ];
    }
}
