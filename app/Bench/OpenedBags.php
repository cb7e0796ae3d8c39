<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\PlainContent;

/** Opens bags, with the passphrase that is held for a job where they are encrypted. */
final readonly class OpenedBags
{
    public function __construct(private BagStore $bags, private PassphraseLocker $locker)
    {
    }

    /** @return BagContent|null null where a passphrase is wanted that is not held */
    public function of(BenchJob $job, Bag $bag): ?BagContent
    {
        $folder = $this->bags->folder($bag->id);
        if ($bag->encryption === Encryption::None) {
            return new PlainContent(BagReader::open($folder));
        }
        $pgp = $this->locker->openPgp($job);

        return $pgp === null ? null : new EncryptedContent($folder, $pgp);
    }

    public static function wanted(string $for): Outcome
    {
        return Outcome::wanted('passphrase-wanted', "The owner's passphrase is wanted: {$for}. It is held encrypted while it is needed, and then wiped.");
    }
}
