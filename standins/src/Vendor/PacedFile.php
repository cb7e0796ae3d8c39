<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Sends a file, or the range of it that was asked for, no faster than a given rate. */
final class PacedFile extends StreamedResponse
{
    private const CHUNK = 65_536;

    private function __construct(
        private readonly BinaryFileResponse $inner,
        private readonly int $rate,
        private readonly ?int $cutAfter,
        private readonly bool $alter,
    ) {
        parent::__construct();
    }

    /**
     * @param  int|null  $cutAfter  bytes after which the connection is cut
     * @param  bool  $alter  whether its first byte is sent wrong
     */
    public static function of(
        BinaryFileResponse $inner,
        int $bytesPerSecond,
        ?int $cutAfter = null,
        bool $alter = false,
    ): self {
        return new self($inner, max(1, $bytesPerSecond), $cutAfter, $alter);
    }

    /** The inner response works out status, range and validators; only the sending is ours. */
    public function prepare(Request $request): static
    {
        $this->inner->prepare($request);
        $this->headers = $this->inner->headers;
        $this->setStatusCode($this->inner->getStatusCode());
        $this->setProtocolVersion($this->inner->getProtocolVersion());
        $this->setCallback($this->pace(...));

        return $this;
    }

    private function pace(): void
    {
        if (! in_array($this->statusCode, [200, 206], true)) {
            return;
        }
        $left = (int) $this->headers->get('Content-Length', (string) $this->inner->getFile()->getSize());
        $from =
            preg_match('/\Abytes (\d+)-/', (string) $this->headers->get('Content-Range'), $m) === 1 ? (int) $m[1] : 0;
        $file =
            fopen($this->inner->getFile()->getPathname(), 'rb')
            ?: throw new \RuntimeException('The package cannot be opened.');
        fseek($file, $from);
        $sent = 0;
        while ($left > 0 && connection_status() === CONNECTION_NORMAL) {
            if ($this->cutAfter !== null && $sent >= $this->cutAfter) {
                break;
            }
            $text = (string) fread($file, max(1, min(self::CHUNK, $left)));
            echo $this->alter && $sent === 0 ? chr(ord($text[0]) ^ 1).substr($text, 1) : $text;
            flush();
            $left -= strlen($text);
            $sent += strlen($text);
            usleep((int) (strlen($text) / $this->rate * 1_000_000));
        }
        fclose($file);
    }
}
