<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\NightlyKey;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\PublicKey;

/** Sets how the nights go, and what is closed at night: with a passphrase that is held, or for a public key. */
final readonly class Nights
{
    public function __construct(private Journal $journal)
    {
    }

    /**
     * @param  Passphrase|null  $passphrase  a new one
     * @param  PublicKey|null  $key  a new one, which takes the place of the passphrase
     */
    public function set(Keeping $wanted, ?Passphrase $passphrase, ?PublicKey $key, User $by): void
    {
        ! $wanted->encrypted
            || $passphrase !== null
            || $key !== null
            || NightlyPassphrase::isHeld()
            || NightlyKey::read() !== null
            || throw Refusal::notNow(
                'Give what the nightly backups are closed with: a passphrase of twelve characters or more, or a public '
                    .'key.',
            );
        DB::transaction(function () use ($wanted, $passphrase, $key, $by): void {
            $wanted->keep();
            self::close($wanted->encrypted, $passphrase, $key);
            $this->journal->noteDeed(
                Deed::SetKeeping,
                $by,
                new Evidence($wanted->fields()->all() + [
                    'new passphrase' => $passphrase !== null,
                    'new key' => $key?->fingerprint,
                ]),
            );
        });
    }

    /** @return array<string, mixed> as a page shows it: of the passphrase only whether one is held */
    public function told(): array
    {
        return Keeping::read()->fields()->all() + [
            'passphraseHeld' => NightlyPassphrase::isHeld(),
            'keyFingerprint' => NightlyKey::read()?->fingerprint,
        ];
    }

    private static function close(bool $encrypted, ?Passphrase $passphrase, ?PublicKey $key): void
    {
        if (! $encrypted || $key !== null) {
            NightlyPassphrase::wipe();
        }
        if (! $encrypted || $passphrase !== null) {
            NightlyKey::drop();
        }
        if ($encrypted && $key !== null) {
            NightlyKey::hold($key);
        } elseif ($encrypted && $passphrase !== null) {
            NightlyPassphrase::hold($passphrase);
        }
    }
}
