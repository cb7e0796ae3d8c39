<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use GuzzleHttp\Psr7\PumpStream;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Time\Rfc3339;

/**
 * Sends items over connections that are kept: several small ones at once, each read whole before it goes; large ones
 * as they are read, one at a time. What was refused is told with one of the next items, or at the end.
 */
final class ItemsGoingOut
{
    private const AT_A_PIECE_BYTES = 1_048_576;

    private const AT_ONCE = 4;

    private const WAIT_SECONDS = 1.0;

    private readonly \CurlMultiHandle $multi;

    private int $inFlight = 0;

    /**
     * @param  string  $content  the address that items' kinds and paths are put behind
     * @param  callable(): void  $waiting  called again and again while nothing is taken
     */
    public function __construct(
        private readonly JsonClient $client,
        private readonly string $content,
        private $waiting,
    ) {
        $this->multi = curl_multi_init();
    }

    /**
     * @param  callable(int): string  $read  gives at most so many bytes of it, and an empty text at the end
     *
     * @throws LinkLost|Declined
     */
    public function put(Item $item, callable $read): void
    {
        if ($item->bytes > self::AT_A_PIECE_BYTES) {
            $this->end();
            $this->stream($item, $read);

            return;
        }
        while ($this->inFlight >= self::AT_ONCE) {
            $this->goOn();
        }
        $handle = $this->client->request($this->addressOf($item), [
            CURLOPT_CUSTOMREQUEST => 'PUT',
            CURLOPT_POSTFIELDS => self::whole($read),
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_HTTPHEADER => ['Content-Type: application/octet-stream', 'Expect:', self::modifiedAt($item)],
        ]);
        curl_multi_add_handle($this->multi, $handle);
        curl_multi_exec($this->multi, $running);
        $this->inFlight++;
    }

    /**
     * Waits until all that was sent is taken.
     *
     * @throws LinkLost|Declined
     */
    public function end(): void
    {
        while ($this->inFlight > 0) {
            $this->goOn();
        }
    }

    private function goOn(): void
    {
        curl_multi_exec($this->multi, $running);
        $some = false;
        while (($ended = curl_multi_info_read($this->multi)) !== false) {
            $some = true;
            $this->inFlight--;
            curl_multi_remove_handle($this->multi, $ended['handle']);
            $ended['result'] === CURLE_OK || throw LinkLost::to($this->client->name);
            $status = (int) curl_getinfo($ended['handle'], CURLINFO_RESPONSE_CODE);
            $status < 300 || throw $this->client->refusal($status, (string) curl_multi_getcontent($ended['handle']));
        }
        ($this->waiting)();
        if (! $some) {
            curl_multi_select($this->multi, self::WAIT_SECONDS);
        }
    }

    /** @param  callable(int): string  $read */
    private function stream(Item $item, callable $read): void
    {
        $body = new PumpStream(static function (int $most) use ($read): string|false {
            $text = $read($most);

            return $text === '' ? false : $text;
        }, ['size' => $item->bytes]);
        [$name, $time] = explode(': ', self::modifiedAt($item), 2) + ['', ''];
        $this->client->put($this->addressOf($item), $body, [$name => $time]);
    }

    /** @param  callable(int): string  $read */
    private static function whole(callable $read): string
    {
        $text = '';
        while (($piece = $read(self::AT_A_PIECE_BYTES)) !== '') {
            $text .= $piece;
        }

        return $text;
    }

    private static function modifiedAt(Item $item): string
    {
        return 'X-Modified-At: '.Rfc3339::format($item->modifiedAt);
    }

    private function addressOf(Item $item): string
    {
        return "{$this->content}/".JsonClient::path($item->key());
    }
}
