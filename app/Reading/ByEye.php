<?php

declare(strict_types=1);

namespace App\Reading;

use App\Facts\BaseOfJob;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Refusal\Refusal;
use App\Shelf\Looks;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Device\App;
use JadeStep\Core\Device\HomeLayout;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Time\Rfc3339;

/**
 * What people compare by eye, before and after: the home layout, the wallpapers, and the photos by date. Before is what
 * the backup holds that the device is compared with; after is what the device lists and gives at this moment.
 */
final readonly class ByEye
{
    private const LAYOUT = 'home-layout/layout.json';

    private const SHOWN = [Kind::Wallpaper, Kind::Photos];

    private const LARGEST = 1_048_576;

    /** Nobody compares more by eye; all of them are compared in the proof. */
    private const MOST_SHOWN = 5_000;

    public function __construct(private Looks $looks, private DeviceLink $link)
    {
    }

    /**
     * @param  Passphrase|null  $passphrase  where the backup is encrypted
     * @return array<string, mixed>
     */
    public function of(BenchJob $job, ?Passphrase $passphrase): array
    {
        $bag = self::bag($job);
        $content = $this->looks->content($bag, $passphrase);
        $before = $content->inventory();
        [$after, $why] = $this->listing($job);
        $was = self::layoutIn($content, $before);
        $is = $after === null ? null : $this->layoutOf($job, $after);
        $names = self::names($job);

        return [
            'bag' => $bag->id,
            'encrypted' => $bag->isEncrypted(),
            'unread' => $why,
            'layout' => [
                'before' => $was?->drawn($names, $after === null ? null : $is ?? HomeLayout::none()),
                'after' => $is?->drawn($names, null),
            ],
            'wallpaper' => self::both(Kind::Wallpaper, $before, $after),
            'photos' => self::both(Kind::Photos, $before, $after),
        ];
    }

    /** One item of the device as it is now: what is looked at, and nothing else. */
    public function itemNow(BenchJob $job, string $key): Item
    {
        $item = $this->link->listing($job->serial)->items->find($key);

        return $item !== null && in_array(Kind::tryFrom($item->kind), self::SHOWN, true)
            ? $item
            : throw Refusal::notNow('The device has no such picture now.');
    }

    /** @return callable(): void which sends it */
    public function sending(BenchJob $job, Item $item): callable
    {
        return function () use ($job, $item): void {
            $stream = $this->link->open($job->serial, $item);
            fpassthru($stream);
            fclose($stream);
        };
    }

    /** The backup that the device is compared with. */
    public static function bag(BenchJob $job): Bag
    {
        $job->proof !== null
            || throw Refusal::notNow('There is something to look at when before and after have been compared.');

        return BaseOfJob::comparedWith($job)
            ?? throw Refusal::notNow('The backup that the device is compared with is not on the Shelf any more.');
    }

    /** @return array{Inventory|null, string|null} the listing, or why there is none */
    private function listing(BenchJob $job): array
    {
        try {
            return [$this->link->listing($job->serial), null];
        } catch (LinkLost|Declined $e) {
            $words = 'Plug it in to see it beside the backup.';

            return [null, "The device cannot be looked at now: {$e->getMessage()} {$words}"];
        }
    }

    private static function layoutIn(BagContent $content, Inventory $inventory): ?HomeLayout
    {
        if ($inventory->items->find(self::LAYOUT) === null) {
            return null;
        }
        $json = '';
        $content->each(static function (Item $item, callable $read) use (&$json): void {
            if ($item->key() === self::LAYOUT) {
                while (strlen($json) < self::LARGEST && ($piece = $read(self::LARGEST)) !== '') {
                    $json .= $piece;
                }
            }
        });

        return HomeLayout::parse($json);
    }

    private function layoutOf(BenchJob $job, Inventory $listing): ?HomeLayout
    {
        $item = $listing->items->find(self::LAYOUT);
        if ($item === null) {
            return null;
        }
        $stream = $this->link->open($job->serial, $item);
        $json = (string) stream_get_contents($stream, self::LARGEST);
        fclose($stream);

        return HomeLayout::parse($json);
    }

    /** @return array<string, string> */
    private static function names(BenchJob $job): array
    {
        $apps = $job->device->apps ?? [];

        return array_combine(
            array_map(static fn (App $a): string => $a->id, $apps),
            array_map(static fn (App $a): string => $a->name, $apps),
        );
    }

    /** @return array{before: list<array<string, mixed>>, after: list<array<string, mixed>>|null} */
    private static function both(Kind $kind, Inventory $before, ?Inventory $after): array
    {
        return [
            'before' => self::items($kind, $before, $after),
            'after' => $after === null ? null : self::items($kind, $after, $before),
        ];
    }

    /** @return list<array<string, mixed>> each with whether the other has the same content */
    private static function items(Kind $kind, Inventory $in, ?Inventory $other): array
    {
        $found = [];
        foreach ($in->items->ofKind($kind->value) as $item) {
            $found[] = [
                'path' => $item->path,
                'modifiedAt' => Rfc3339::format($item->modifiedAt),
                'missing' => $other !== null && $other->items->alike($item) === [],
            ];
            if (count($found) === self::MOST_SHOWN) {
                break;
            }
        }

        return $found;
    }
}
