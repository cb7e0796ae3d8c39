<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\PassphraseLocker;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\User;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\Cache;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\Tide;

/**
 * Looking into bags. An encrypted one is opened for the length of one look, with the passphrase that comes with the
 * question and is kept nowhere; nothing of it lies on the disk in the clear.
 */
final readonly class Looks
{
    private const ONE_LOOK_SECONDS = 600;

    public function __construct(private BagStore $bags, private Journal $journal)
    {
    }

    /** @param  Passphrase|null  $passphrase  which a plain bag does not want */
    public function content(Bag $bag, ?Passphrase $passphrase): BagContent
    {
        $folder = $this->bags->folder($bag->id);
        is_dir($folder)
            || throw Refusal::notNow('The bag is not on the disk any more. Verify it, to see what is wrong.');

        $bag->closed_for === null || throw Unopened::closedForKey($bag->closed_for);

        return $bag->isEncrypted()
            ? new EncryptedContent(
                $folder,
                PassphraseLocker::with(
                    $passphrase ?? throw Refusal::notNow(
                        "\"{$bag->label}\" is encrypted: what it holds is told by its passphrase only. Give it.",
                    ),
                ),
            )
            : new PlainContent(BagReader::open($folder));
    }

    public function inventory(Bag $bag, ?Passphrase $passphrase = null): Inventory
    {
        return $this->content($bag, $passphrase)->inventory();
    }

    public function tide(Bag $bag): Tide
    {
        return Tide::of($this->inventory($bag));
    }

    /** A look into an encrypted bag begins. */
    public function begin(Bag $bag, Passphrase $passphrase, User $by): Inventory
    {
        $inventory = $this->inventory($bag, $passphrase);
        $this->journal->noteDeed(Deed::LookIntoBag, $by, new Evidence(['bag' => $bag->id]), $bag->serial);

        return $inventory;
    }

    /** That somebody looked at what an owner has: once in a while for each bag and kind, not for each picture. */
    public function note(Bag $bag, User $by, string $kind): void
    {
        if (Cache::add("look:{$by->id}:{$bag->id}:{$kind}", true, self::ONE_LOOK_SECONDS)) {
            $this->journal->noteDeed(
                Deed::LookAtItems,
                $by,
                new Evidence(['bag' => $bag->id] + ($kind === '' ? [] : ['kind' => $kind])),
                $bag->serial,
            );
        }
    }

    /** What one has that the other lacks, by kind and item. */
    public function compare(Bag $one, Bag $other, ?Passphrase $ofOne, ?Passphrase $ofOther): Comparison
    {
        return Reconciliation::compare($this->inventory($one, $ofOne), $this->inventory($other, $ofOther), []);
    }

    public function item(Bag $bag, string $key, ?Passphrase $passphrase = null): Item
    {
        return $this->inventory($bag, $passphrase)->items->find($key)
            ?? throw Refusal::notNow('The bag has no such item.');
    }

    /** Of a plain bag: the file that an item lies in. */
    public function fileOf(Bag $bag, Item $item): string
    {
        return $this->bags->folder($bag->id)."/data/{$item->stored()}";
    }

    /** @return callable(): void which sends the item of an encrypted bag, once it is seen to be as it was written */
    public function sending(Bag $bag, Item $item, Passphrase $passphrase): callable
    {
        $content = new EncryptedContent($this->bags->folder($bag->id), PassphraseLocker::with($passphrase));

        return static fn () => $content->item($item, static function (string $piece): void {
            echo $piece;
            flush();
        });
    }
}
