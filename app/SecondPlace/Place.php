<?php

declare(strict_types=1);

namespace App\SecondPlace;

use App\Models\Setting;
use App\Ports\PlaceAddress;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use JadeStep\Core\Exchange\Fields;

/** Where sealed bags are kept a second time: a folder of this machine, or one of a server by SFTP. */
final readonly class Place
{
    private const NAME = 'second-place';

    /** So that an empty mount point is not taken for the disk that is to be mounted there. */
    public const MARK = '.jade-step-second-place';

    /**
     * @param  string  $folder  in full, here or on the server
     * @param  string|null  $host  null for a folder of this machine
     * @param  string|null  $hostKey  as the host has to show it: `SHA256:…` (RFC 4648 base64, without padding)
     * @param  string|null  $closed  password or private key, encrypted
     * @param  bool  $demanded  whether the erase line stays shut until the sealed copy is there
     * @param  string  $mark  what stands in the file that marks the place as this instance's
     */
    private function __construct(
        public string $folder,
        public ?string $host,
        public int $port,
        public ?string $user,
        public ?string $hostKey,
        private ?string $closed,
        public bool $demanded,
        public string $mark,
    ) {
    }

    /** @return self|null null where there is none */
    public static function read(): ?self
    {
        $kept = Setting::query()->find(self::NAME)?->value;

        return $kept === null ? null : new self(
            $kept->string('folder'),
            $kept->maybeString('host'),
            $kept->int('port'),
            $kept->maybeString('user'),
            $kept->maybeString('hostKey'),
            $kept->maybeString('ciphertext'),
            $kept->bool('demanded'),
            $kept->string('mark'),
        );
    }

    /** Of a request. @param  self|null  $held  whose secret and mark stay where no others are given */
    public static function wanted(Fields $f, ?self $held): self
    {
        $secret = $f->maybeString('secret') ?? '';
        $isSame = $held !== null && $held->host === $f->maybeString('host') && $held->folder === $f->string('folder');

        return new self(
            $f->string('folder'),
            $f->maybeString('host'),
            $f->maybeInt('port') ?? 22,
            $f->maybeString('user'),
            $f->maybeString('hostKey'),
            $secret === '' ? ($held?->closed) : Crypt::encryptString($secret),
            $f->bool('demanded'),
            $isSame ? $held->mark : bin2hex(random_bytes(16)),
        );
    }

    public function keep(): void
    {
        $fields = ['ciphertext' => $this->closed] + get_object_vars($this);
        unset($fields['closed']);
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => Fields::of($fields)]);
    }

    public static function forget(): void
    {
        Setting::query()->whereKey(self::NAME)->delete();
    }

    public function isServer(): bool
    {
        return $this->host !== null;
    }

    public function holdsSecret(): bool
    {
        return $this->closed !== null;
    }

    public function address(): PlaceAddress
    {
        return new PlaceAddress(
            $this->folder,
            $this->host,
            $this->port,
            (string) $this->user,
            $this->hostKey,
            $this->secret(),
        );
    }

    /** @return string password or private key; empty where none is held, or where no key of this instance opens it */
    private function secret(): string
    {
        try {
            return $this->closed === null ? '' : Crypt::decryptString($this->closed);
        } catch (DecryptException) {
            return '';
        }
    }

    /** @return string where it is, in words */
    public function words(): string
    {
        return $this->host === null ? $this->folder : "{$this->host}:{$this->folder}";
    }
}
