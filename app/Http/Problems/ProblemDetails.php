<?php

declare(strict_types=1);

namespace App\Http\Problems;

use Symfony\Component\HttpFoundation\Response;

/** Problem details as RFC 9457 has them, with a code and what belongs to it. */
final readonly class ProblemDetails implements \JsonSerializable
{
    /** @param  array<string, mixed>  $more */
    private function __construct(public int $status, private string $code, private string $detail, private array $more)
    {
    }

    /** @param  mixed  ...$more  by name */
    public static function of(int $status, string $code, string $detail, mixed ...$more): self
    {
        return new self($status, $code, $detail, array_combine(array_map(strval(...), array_keys($more)), $more));
    }

    public function jsonSerialize(): mixed
    {
        return [
            'type' => 'about:blank',
            'title' => Response::$statusTexts[$this->status] ?? 'Error',
            'status' => $this->status,
            'detail' => $this->detail,
            'code' => $this->code,
        ] + $this->more;
    }
}
