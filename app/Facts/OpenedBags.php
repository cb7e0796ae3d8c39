<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagContent;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\PlainContent;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;

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
        if (! $bag->isEncrypted()) {
            return new PlainContent(BagReader::open($folder));
        }
        $pgp = $this->locker->openPgp($job);

        return $pgp === null ? null : new EncryptedContent($folder, $pgp);
    }

    /**
     * The bag's content, tried once. A passphrase that is not this bag's is said to be so, and wiped.
     *
     * @param  string  $for  what it is wanted for, in words
     * @return BagContent|Problem what is wanted, where none is held or the held one does not open it
     */
    public function tried(BenchJob $job, Bag $bag, string $for): BagContent|Problem
    {
        $content = $this->of($job, $bag);
        if ($content === null) {
            return Problem::of(ProblemCode::PassphraseWanted, self::wanted($for, $bag));
        }
        try {
            $content->inventory();
        } catch (Unopened $e) {
            $e->passphraseIsWrong || throw $e;
            $this->locker->wipe($job);

            return Problem::of(
                ProblemCode::PassphraseWanted,
                "The passphrase that was given does not open \"{$bag->label}\". Type it again; capital letters and "
                    .'blanks count. '
                    .self::wanted($for, $bag),
            );
        }

        return $content;
    }

    /** What is said where a passphrase is wanted. */
    public static function wanted(string $for, ?Bag $bag = null): string
    {
        $which = $bag === null ? '' : " It is that of \"{$bag->label}\".";

        return "The owner's passphrase is wanted: {$for}.{$which} "
            .'It is held encrypted while it is needed, and then wiped.';
    }
}
