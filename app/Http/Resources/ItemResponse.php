<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Bag\Item;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** One item of a bag as it is sent: shown where a browser may show it, and otherwise a download. */
final class ItemResponse
{
    /** Only these are shown in the page; everything else is a download. */
    private const SHOWN = [
        'jpg' => 'image/jpeg',
        'jpeg' => 'image/jpeg',
        'png' => 'image/png',
        'txt' => 'text/plain; charset=utf-8',
        'md' => 'text/plain; charset=utf-8',
        'vcf' => 'text/plain; charset=utf-8',
        'ics' => 'text/plain; charset=utf-8',
        'jsonl' => 'text/plain; charset=utf-8',
        'json' => 'text/plain; charset=utf-8',
        'csv' => 'text/plain; charset=utf-8',
    ];

    public static function ofFile(Item $item, string $file): BinaryFileResponse
    {
        return (new BinaryFileResponse($file, 200, self::headers($item), false))
            ->setContentDisposition(...self::disposition($item));
    }

    /**
     * @param  callable(): void  $send
     * @param  array<string, string>  $headers  more of them
     */
    public static function sent(Item $item, callable $send, array $headers): StreamedResponse
    {
        return new StreamedResponse($send, 200, self::headers($item) + $headers + [
            'Content-Disposition' => HeaderUtils::makeDisposition(...self::disposition($item)),
        ]);
    }

    /** @return array<string, string> */
    private static function headers(Item $item): array
    {
        return [
            'Content-Type' => self::SHOWN[self::ending($item)] ?? 'application/octet-stream',
            'Cache-Control' => 'private, no-store', // an owner's life lies in no cache
            'Content-Security-Policy' => "default-src 'none'; sandbox",
        ];
    }

    /** @return array{string, string, string} how it is shown, its name, and its name in ASCII */
    private static function disposition(Item $item): array
    {
        $name = basename($item->path);

        return [
            isset(self::SHOWN[self::ending($item)]) ? 'inline' : 'attachment',
            $name,
            (string) preg_replace('/[^A-Za-z0-9._-]/', '_', $name),
        ];
    }

    private static function ending(Item $item): string
    {
        return strtolower(pathinfo($item->path, PATHINFO_EXTENSION));
    }
}
