<?php

declare(strict_types=1);

namespace App\Ports\Http;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\FetchedItem;
use JadeStep\Core\Bag\Item;

/**
 * Fetches items over connections that are kept, several at once, and gives them in the order in which they were asked
 * for. Small ones come many in one request where the link knows that call; large ones as streams, one at a time.
 */
final class ItemsInFlight
{
    /** Larger ones come as streams. */
    private const AT_A_PIECE_BYTES = 1_048_576;

    private const IN_BATCH_BYTES = 262_144;

    private const BATCH_ITEMS = 64;

    private const BATCH_BYTES = 1_048_576;

    private const BATCHES_AT_ONCE = 2;

    private const AT_ONCE = 4;

    private const WAIT_SECONDS = 1.0;

    /** @var list<ItemCall> in the order of their items */
    private array $calls = [];

    /** @var bool|null null until the link has shown it */
    private ?bool $knowsBatches = null;

    private readonly \CurlMultiHandle $multi;

    /** @param  string  $suffix  of the addresses of items: the query that says for which backup */
    public function __construct(
        private readonly JsonClient $client,
        private readonly string $content,
        private readonly string $suffix,
    ) {
        $this->multi = curl_multi_init();
    }

    /**
     * @param  iterable<Item>  $items
     * @param  callable(): void  $waiting  called again and again while nothing comes
     * @return \Generator<FetchedItem>
     *
     * @throws LinkLost|Declined
     */
    public function fetch(iterable $items, callable $waiting): \Generator
    {
        $left = (static fn (): \Generator => yield from $items)();
        try {
            for ($this->fill($left); $this->calls !== []; $this->fill($left)) {
                $call = $this->calls[0];
                if ($call->isLarge()) {
                    yield $this->stream($call->items[0]);
                } else {
                    yield from $this->arrivals($call, $waiting);
                }
                if ($this->calls[0] === $call) {
                    array_shift($this->calls);
                }
            }
        } finally {
            foreach ($this->calls as $call) {
                if ($call->handle !== null) {
                    curl_multi_remove_handle($this->multi, $call->handle);
                }
            }
            $this->calls = [];
        }
    }

    /** @param  \Generator<Item>  $left */
    private function fill(\Generator $left): void
    {
        while ($left->valid() && count($this->calls) < $this->atOnce() && ! $this->endsWithStream()) {
            $item = $left->current();
            if ($item->bytes > self::AT_A_PIECE_BYTES) {
                $this->calls[] = new ItemCall([$item], false, null);
                $left->next();
            } elseif ($this->knowsBatches !== false && $item->bytes <= self::IN_BATCH_BYTES) {
                $this->calls[] = $this->askForMany($this->batch($left));
            } else {
                $this->calls[] = $this->askForOne($item);
                $left->next();
            }
        }
    }

    /** Whether the link knows batches is seen by the first one. */
    private function atOnce(): int
    {
        return match ($this->knowsBatches) {
            null => 1,
            true => self::BATCHES_AT_ONCE,
            false => self::AT_ONCE,
        };
    }

    /** Nothing is asked for ahead while a large item comes: nobody would read it for long. */
    private function endsWithStream(): bool
    {
        return $this->calls !== [] && $this->calls[count($this->calls) - 1]->isLarge();
    }

    /**
     * @param  \Generator<Item>  $left
     * @return list<Item>
     */
    private function batch(\Generator $left): array
    {
        $items = [];
        $bytes = 0;
        while ($left->valid() && count($items) < self::BATCH_ITEMS) {
            $item = $left->current();
            $bytes += $item->bytes;
            if ($item->bytes > self::IN_BATCH_BYTES || ($items !== [] && $bytes > self::BATCH_BYTES)) {
                break;
            }
            $items[] = $item;
            $left->next();
        }

        return $items;
    }

    /** @param  list<Item>  $items */
    private function askForMany(array $items): ItemCall
    {
        $wanted = array_map(static fn (Item $i): array => ['kind' => $i->kind, 'path' => $i->path], $items);

        return $this->ask($items, true, "{$this->content}/batch{$this->suffix}", [
            CURLOPT_POSTFIELDS => json_encode(['items' => $wanted], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            CURLOPT_HTTPHEADER => ['Content-Type: application/json', 'Expect:'],
        ]);
    }

    private function askForOne(Item $item): ItemCall
    {
        return $this->ask([$item], false, $this->addressOf($item), []);
    }

    private function addressOf(Item $item): string
    {
        return "{$this->content}/".JsonClient::path($item->key()).$this->suffix;
    }

    /**
     * @param  list<Item>  $items
     * @param  array<int, mixed>  $options
     */
    private function ask(array $items, bool $isBatch, string $path, array $options): ItemCall
    {
        $handle = $this->client->request($path, $options);
        $call = new ItemCall($items, $isBatch, $handle);
        $take = static function (\CurlHandle $h, string $text) use ($call): int {
            $call->text .= $text;

            return strlen($text);
        };
        curl_setopt($handle, CURLOPT_WRITEFUNCTION, $take);
        curl_multi_add_handle($this->multi, $handle);

        return $call;
    }

    private function stream(Item $item): FetchedItem
    {
        try {
            return FetchedItem::streamed($item, $this->client->stream($this->addressOf($item))[0]);
        } catch (Declined $e) {
            return $e->reason === 'no-such-item' ? FetchedItem::gone($item) : throw $e;
        }
    }

    /**
     * @param  callable(): void  $waiting
     * @return \Generator<FetchedItem>
     */
    private function arrivals(ItemCall $call, callable $waiting): \Generator
    {
        while (true) {
            if ($call->status() === 200) {
                $this->knowsBatches ??= $call->isBatch ? true : null;
                try {
                    yield from $call->arrived();
                } catch (\UnexpectedValueException $e) {
                    throw LinkLost::to($this->client->name, $e);
                }
            }
            if ($call->isOver) {
                break;
            }
            $this->goOn();
            $waiting();
        }
        if ($call->isWhole()) {
            return;
        }
        if ($call->isBatch && $this->knowsBatches === null && ! $call->isRefusedByDevice()) {
            $this->askOneByOne($call);

            return;
        }
        ! $call->isBroken && $call->status() !== 200 || throw LinkLost::to($this->client->name);
        $no = $this->client->refusal($call->status(), $call->text);
        $no->reason === 'no-such-item' && ! $call->isBatch ? yield FetchedItem::gone($call->items[0]) : throw $no;
    }

    /** A link that lacks the call for many items may answer it in any way; what is wrong otherwise shows again. */
    private function askOneByOne(ItemCall $call): void
    {
        $this->knowsBatches = false;
        $ones = array_map($this->askForOne(...), $call->items);
        $this->calls = [...$ones, ...array_slice($this->calls, 1)];
    }

    /** Lets what is in flight go on, for a moment at most where nothing comes. */
    private function goOn(): void
    {
        curl_multi_exec($this->multi, $running);
        $some = false;
        while (($ended = curl_multi_info_read($this->multi)) !== false) {
            $some = true;
            curl_multi_remove_handle($this->multi, $ended['handle']);
            curl_setopt($ended['handle'], CURLOPT_WRITEFUNCTION, null); // it holds the call, and the call holds it
            foreach ($this->calls as $call) {
                if ($call->handle === $ended['handle']) {
                    $call->isOver = true;
                    $call->isBroken = $ended['result'] !== CURLE_OK;
                }
            }
        }
        if (! $some && $running > 0) {
            curl_multi_select($this->multi, self::WAIT_SECONDS);
        }
    }
}
