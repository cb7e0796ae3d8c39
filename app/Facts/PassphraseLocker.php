<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\BenchJob;
use App\Models\HeldPassphrase;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use JadeStep\Core\Bag\OpenPgp;
use JadeStep\Core\Bag\Passphrase;
use Psr\Clock\ClockInterface;

/** Holds an owner's passphrase for the steps that need it: encrypted, at most a day, and wiped when they end. */
final readonly class PassphraseLocker
{
    private const HOURS = 24;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function put(BenchJob $job, Passphrase $passphrase): void
    {
        HeldPassphrase::query()->updateOrCreate(
            ['bench_job_id' => $job->id],
            [
                'ciphertext' => Crypt::encryptString($passphrase->reveal()),
                'expires_at' => $this->clock->now()->modify('+'.self::HOURS.' hours'),
            ],
        );
    }

    /** Opens and closes with the job's passphrase, or closes for the key of the nights: null where none is held. */
    public function openPgp(BenchJob $job): ?OpenPgp
    {
        $key = $job->nightly ? NightlyKey::read() : null;
        if ($key !== null) {
            return new OpenPgp(config()->string('jade.gnupg'), $key);
        }
        $held = HeldPassphrase::query()->where('expires_at', '>', $this->clock->now())->find($job->id);
        try {
            return $held === null ? null : self::with(Passphrase::existing(Crypt::decryptString($held->ciphertext)));
        } catch (DecryptException) {
            return null; // the instance's key is another by now: it is asked for again
        }
    }

    public static function with(Passphrase $passphrase): OpenPgp
    {
        return new OpenPgp(config()->string('jade.gnupg'), $passphrase);
    }

    public function wipe(BenchJob $job): void
    {
        HeldPassphrase::query()->whereKey($job->id)->delete();
    }

    public function wipeExpired(): void
    {
        HeldPassphrase::query()->where('expires_at', '<=', $this->clock->now())->delete();
    }
}
