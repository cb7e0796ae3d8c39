<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/**
 * A simulated device that judges for itself. Work on it runs by the clock: each look at the device first carries
 * out what has come due since the last one, so that nothing is lost when the rig is stopped.
 */
final class Handset
{
    private const PLAIN = [
        'photos',
        'messages',
        'contacts',
        'calendars',
        'notes',
        'recordings',
        'call-log',
        'app-data',
        'home-layout',
        'settings',
        'wallpaper',
    ];

    /** What a running device takes in one by one, since it comes in an open format. */
    private const ONE_BY_ONE = ['photos', 'messages', 'contacts', 'calendars', 'notes', 'recordings', 'call-log'];

    private const ENCRYPTED_ONLY = ['saved-passwords', 'health', 'accessory-pairing'];

    /**
     * @param  array<string, mixed>  $state
     * @param  float  $now  of the rig's clock, by which work runs
     * @param  int  $today  of the wall's clock, by which permits run out and files are dated
     */
    public function __construct(
        public array $state,
        public readonly string $folder,
        public readonly float $now,
        public readonly int $today,
        public readonly float $speed,
    ) {
    }

    public function works(): Works
    {
        return new Works($this);
    }

    public function hands(): Hands
    {
        return new Hands($this);
    }

    public function content(): Storage
    {
        return new Storage("{$this->folder}/content");
    }

    /** Carries out what is due. */
    public function catchUp(): void
    {
        $this->hands()->plugBack();
        $this->hands()->drain();
        if (
            $this->state['ownerLock'] === 'on'
            && $this->state['lockDelayEndsAt'] !== null
            && strtotime($this->state['lockDelayEndsAt']) <= $this->today
        ) {
            $this->state = ['ownerLock' => 'off', 'lockDelayEndsAt' => null] + $this->state;
        }
        foreach (array_keys($this->state['operations']) as $id) {
            if ($this->state['operations'][$id]['state'] === 'running') {
                $this->works()->advance((string) $id);
            }
        }
    }

    /** @return array<string, mixed> */
    public function reading(): array
    {
        $told = $this->state['paired'] && $this->state['mode'] === 'normal';
        $kinds = [];
        $used = $this->state['systemBytes'];
        foreach ($this->content()->stock() as $kind => $stock) {
            $used += $stock['bytes'];
            $kinds[] = [
                'kind' => $kind, 'items' => $stock['items'], 'bytes' => $stock['bytes'],
                'lastChangedAt' => self::time($stock['lastChangedAt']),
                'syncedAt' => in_array($kind, $this->state['synced'], true) ? self::time($this->today - 300) : null,
            ];
        }
        $shown = [
            'serial',
            'imei',
            'hardwareId',
            'modelName',
            'osLine',
            'version',
            'build',
            'rollbackCounter',
            'radioMinimum',
            'capacityBytes',
            'batteryPercent',
            'charging',
            'ownerLock',
            'lockDelay',
            'lockDelayEndsAt',
            'betaEnrolled',
            'mode',
            'bootable',
            'paired',
            'activated',
            'setUp',
        ];

        return array_intersect_key($this->state, array_flip($shown)) + [
            'freeBytes' => $told ? $this->state['capacityBytes'] - $used : null,
            'accessories' => $told ? $this->state['accessories'] : [],
            'apps' => $told && $this->state['setUp']
                    ? array_values(array_filter($this->state['apps'], $this->runs(...)))
                    : [],
            'kinds' => $told ? $kinds : [],
            'operation' => $this->works()->running(),
            'cloudReturn' => $this->state['cloudReturn'],
            'practice' => true,
        ];
    }

    /** @return \Generator<string> the listing of what a backup may carry, as JSON Lines */
    public function listing(bool $encrypted): \Generator
    {
        $this->wantPaired();
        foreach ($encrypted ? [...self::PLAIN, ...self::ENCRYPTED_ONLY] : self::PLAIN as $kind) {
            $files = $this->content()->files($kind);
            yield self::json([
                'kind' => $kind,
                'items' => count($files),
                'storeSchema' => $this->state['storeSchemas'][$kind] ?? null,
            ]);
            foreach ($files as $path => $file) {
                yield self::json([
                    'kind' => $kind,
                    'path' => (string) $path,
                    'bytes' => $file->getSize(),
                    'sha256' => hash_file('sha256', $file->getPathname()),
                    'modifiedAt' => self::time($file->getMTime()),
                ]);
            }
        }
    }

    public function item(string $kind, string $path, bool $encrypted): string
    {
        $this->wantPaired();
        in_array($kind, self::PLAIN, true)
            || ($encrypted && in_array($kind, self::ENCRYPTED_ONLY, true))
            || throw new Problem(403, 'encrypted-only', 'This kind is handed out only into an encrypted backup.');
        $file = $this->content()->path($kind, $path);

        is_file($file) || throw new Problem(404, 'no-such-item', 'The device has no such item.');
        if ($this->hands()->takeFault('content-changes') !== null) {
            file_put_contents($file, "\nchanged during the backup", FILE_APPEND);
            touch($file, $this->today);
        }

        return $file;
    }

    /** @return array<string, mixed> */
    public function start(string $kind): array
    {
        match ($kind) {
            'enter-recovery' => $this->wantCable(),
            'pair', 'restart', 'activate' => $this->wantMode('normal'),
            'leave-recovery' => $this->wantBuild(),
            'set-up' => $this->wantActivated(),
            default => throw new Problem(404, 'not-found', 'The device does no such work.'),
        };
        if (
            $kind === 'activate'
            && $this->state['ownerLock'] === 'on'
            && ! $this->state['ownerEntered']
            && ! $this->state['activated']
        ) {
            throw new Problem(
                409,
                'owner-account-wanted',
                'The device is locked to its owner: the owner\'s account is to be entered on the device itself.',
            );
        }

        return $this->works()->begin($kind, []);
    }

    public function nonce(): string
    {
        $this->wantMode('recovery');

        return $this->state['nonce'] = bin2hex(random_bytes(16));
    }

    /**
     * @param  bool  $keepData  an in-place move: nothing is wiped
     * @param  array<string, string>  $vendorKeys  raw keys by id
     * @return array<string, mixed>
     */
    public function install(string $permit, string $packageFile, bool $keepData, array $vendorKeys): array
    {
        $this->wantMode('recovery');
        is_file($packageFile) || throw new Problem(409, 'package-missing', 'The device has not received the package.');
        $this->state['charging']
            || $this->state['batteryPercent'] >= 10
            || throw new Problem(
                409,
                'battery-low',
                "The battery stands at {$this->state['batteryPercent']} %: the device installs nothing below 10 "
                    .'% unless it is charging.',
            );
        $head = InstallJudge::check($this->state, $permit, $packageFile, $keepData, $vendorKeys, $this->today);
        $this->state['nonce'] = null;

        return $this->works()->begin('install', ['head' => $head, 'keepData' => $keepData]);
    }

    /** @param  array<string, mixed>  $offer the backup's declared version and its kinds with their store schemas */
    public function offerReturn(array $offer): string
    {
        $this->wantPaired();
        $this->wantActivated();
        $this->wantCable();
        if ($this->state['ownerLock'] === 'on') {
            throw new Problem(409, 'owner-lock-on', 'The owner lock is on: switch it off before data is put back.');
        }
        $declared = $offer['declaredVersion'] ?? null;
        if (! is_string($declared) || version_compare($declared, $this->state['version'], '>')) {
            throw new Problem(
                409,
                'backup-too-new',
                "This backup is from a newer version than {$this->state['version']}, which the device runs.",
            );
        }
        $this->hands()->takeFault('return-refused') === null
            || throw new Problem(
                409,
                'backup-not-taken',
                'This backup cannot be put back: what it holds does not fit the version that it declares.',
            );
        $id = substr(hash('sha256', (string) json_encode($offer)), 0, 16);
        $this->state['returns'][$id] ??= $offer;

        return $id;
    }

    public function staging(string $return): Storage
    {
        isset($this->state['returns'][$return])
            || throw new Problem(404, 'no-such-return', 'The device knows no such return.');

        return new Storage("{$this->folder}/returns/{$return}");
    }

    /** @return array<string, mixed> */
    public function commitReturn(string $return): array
    {
        $this->wantPaired();
        $staging = $this->staging($return);
        foreach ($this->state['returns'][$return]['kinds'] as $kind) {
            $have = count($staging->files($kind['kind']));
            $have === $kind['items']
                || throw new Problem(
                    409,
                    'return-incomplete',
                    "Of {$kind['kind']}, {$have} of {$kind['items']} items were received.",
                );
        }

        return $this->works()->begin('return', ['return' => $return]);
    }

    /**
     * Takes one item in beside what is there already.
     *
     * @return Storage where it goes
     */
    public function takesIn(string $kind): Storage
    {
        $this->wantPaired();
        $this->wantCable();
        $this->state['setUp'] || throw new Problem(409, 'not-set-up', 'The device is to be set up first.');
        $this->state['ownerLock'] !== 'on'
            || throw new Problem(409, 'owner-lock-on', 'The owner lock is on: switch it off before data is put back.');
        in_array($kind, self::ONE_BY_ONE, true)
            || throw new Problem(409, 'whole-only', 'This kind comes back with a whole backup only.');

        return $this->content();
    }

    /**
     * Its holder has it fetch the owner's cloud backup.
     *
     * @return array<string, mixed>
     */
    public function returnFromCloud(): array
    {
        $this->wantActivated();
        $backup =
            $this->state['cloudBackup']
            ?? throw new Problem(409, 'no-cloud-backup', 'The owner\'s cloud holds no backup of this device.');
        version_compare($backup['madeOn'], $this->state['version'], '>')
            && throw new Problem(
                409,
                'backup-too-new',
                "The cloud backup is from a newer version than {$this->state['version']}, which the device runs.",
            );

        return $this->works()->begin('cloud-return', []);
    }

    /** @param  array<string, mixed>  $app */
    public function runs(array $app): bool
    {
        return version_compare($app['minimumOs'], $this->state['version'], '<=');
    }

    private function wantCable(): void
    {
        $this->wantMode('normal');
        $this->state['port'] !== null
            || throw new Problem(409, 'by-air-only', 'The device is near by air only. Plug it in for this.');
    }

    private function wantBuild(): void
    {
        $this->wantMode('recovery');
        $this->state['bootable']
            || throw new Problem(
                409,
                'not-bootable',
                'The device runs no build now: it leaves recovery mode when one has been installed.',
            );
    }

    public function wantPaired(): void
    {
        $this->wantMode('normal');
        $this->state['paired'] || throw new Problem(403, 'not-paired', 'The device has not said yes to this computer.');
    }

    private function wantActivated(): void
    {
        $this->wantMode('normal');
        $this->state['activated'] || throw new Problem(409, 'not-activated', 'The device is to be activated first.');
    }

    private function wantMode(string $mode): void
    {
        $this->state['mode'] === $mode
            || throw new Problem(
                409,
                "not-in-{$mode}-mode",
                "The device is in {$this->state['mode']} mode; this needs {$mode} mode.",
            );
    }

    public static function time(?int $time): ?string
    {
        return $time === null ? null : gmdate('Y-m-d\TH:i:s\Z', $time);
    }

    /** @param  array<string, mixed>  $fields */
    public static function json(array $fields): string
    {
        return json_encode($fields, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
    }
}
