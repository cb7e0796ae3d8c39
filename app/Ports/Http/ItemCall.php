<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\FetchedItem;
use JadeStep\Core\Bag\Item;

/** One request of a device link for an item, or for many, while its answer comes in. */
final class ItemCall
{
    public string $text = '';

    public bool $isOver = false;

    public bool $isBroken = false;

    /** How far the answer of many has been read. */
    private int $read = 0;

    private int $taken = 0;

    /** @param  list<Item>  $items  in the order in which they come */
    public function __construct(
        public readonly array $items,
        public readonly bool $isBatch,
        public readonly ?\CurlHandle $handle,
    ) {
    }

    /** What comes in as a stream is not asked for ahead of its turn. */
    public function isLarge(): bool
    {
        return $this->handle === null;
    }

    public function isWhole(): bool
    {
        return $this->taken === count($this->items);
    }

    /** Whether the device itself says no: then it says so to any other call as well. */
    public function isRefusedByDevice(): bool
    {
        $told = json_decode($this->text, true, 8);

        return is_array($told)
            && in_array($told['code'] ?? null, ['no-such-device', 'not-paired', 'not-in-normal-mode'], true);
    }

    public function status(): int
    {
        return $this->handle === null ? 0 : (int) curl_getinfo($this->handle, CURLINFO_RESPONSE_CODE);
    }

    /**
     * What has come in whole since the last call, of an answer that is no refusal.
     *
     * @return \Generator<FetchedItem>
     *
     * @throws \UnexpectedValueException where the answer is not what was asked for
     */
    public function arrived(): \Generator
    {
        if (! $this->isBatch) {
            if ($this->isOver && ! $this->isBroken && ! $this->isWhole()) {
                $this->taken++;
                yield FetchedItem::whole($this->items[0], $this->text);
            }

            return;
        }
        while (! $this->isWhole() && ($end = strpos($this->text, "\n", $this->read)) !== false) {
            $head = json_decode(substr($this->text, $this->read, $end - $this->read), true, 4);
            $item = $this->items[$this->taken];
            if (! is_array($head) || [$head['kind'] ?? null, $head['path'] ?? null] !== [$item->kind, $item->path]) {
                throw new \UnexpectedValueException("It does not answer with {$item->key()}, which was asked for.");
            }
            $bytes = $head['bytes'] ?? null;
            if (! is_int($bytes)) {
                yield self::refused($item, $head);
                $bytes = 0;
            } elseif (strlen($this->text) < $end + 1 + $bytes) {
                return;
            } else {
                yield FetchedItem::whole($item, substr($this->text, $end + 1, $bytes));
            }
            $this->read = $end + 1 + $bytes;
            $this->taken++;
        }
    }

    /** @param  array<mixed>  $head */
    private static function refused(Item $item, array $head): FetchedItem
    {
        return ($head['code'] ?? null) === 'no-such-item'
            ? FetchedItem::gone($item)
            : throw JsonClient::declinedBy($head, 409);
    }
}
