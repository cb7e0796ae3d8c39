<?php

declare(strict_types=1);

namespace Standins\Http;

use Symfony\Component\HttpFoundation\JsonResponse;

/** A refusal, told as problem details (RFC 9457) with a code that a program can read. */
final class Problem extends \RuntimeException
{
    public function __construct(public readonly int $status, public readonly string $reason, string $detail)
    {
        parent::__construct($detail);
    }

    public function response(): JsonResponse
    {
        return new JsonResponse(
            [
                'type' => 'about:blank',
                'title' => self::title($this->status),
                'status' => $this->status,
                'detail' => $this->getMessage(),
                'code' => $this->reason,
            ],
            $this->status,
            ['Content-Type' => 'application/problem+json'],
        );
    }

    private static function title(int $status): string
    {
        return JsonResponse::$statusTexts[$status] ?? 'Error';
    }
}
