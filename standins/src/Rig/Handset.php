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
    private const PLAIN = ['photos', 'messages', 'contacts', 'calendars', 'notes', 'recordings', 'call-log', 'app-data', 'home-layout', 'settings', 'wallpaper'];

    private const ENCRYPTED_ONLY = ['saved-passwords', 'health', 'accessory-pairing'];

    /** @param  array<string, mixed>  $state */
    public function __construct(public array $state, private readonly string $folder, private readonly float $speed, private readonly float $now)
    {
    }

    public function content(): Storage
    {
        return new Storage("{$this->folder}/content");
    }

    /** Carries out what is due. */
    public function catchUp(): void
    {
        foreach (array_keys($this->state['operations']) as $id) {
            if ($this->state['operations'][$id]['state'] === 'running') {
                $this->advance((string) $id);
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
                'syncedAt' => in_array($kind, $this->state['synced'], true) ? self::time((int) $this->now - 300) : null,
            ];
        }
        $shown = ['serial', 'imei', 'hardwareId', 'modelName', 'osLine', 'version', 'build', 'rollbackCounter', 'radioMinimum', 'capacityBytes',
            'batteryPercent', 'charging', 'ownerLock', 'lockDelay', 'lockDelayEndsAt', 'betaEnrolled', 'mode', 'paired', 'activated', 'setUp'];

        return array_intersect_key($this->state, array_flip($shown)) + [
            'freeBytes' => $told ? $this->state['capacityBytes'] - $used : null,
            'accessories' => $told ? $this->state['accessories'] : [],
            'apps' => $told && $this->state['setUp'] ? $this->state['apps'] : [],
            'kinds' => $told ? $kinds : [],
            'operation' => $this->running(),
        ];
    }

    /** @return array<string, mixed>|null the work that goes on now */
    private function running(): ?array
    {
        foreach ($this->state['operations'] as $id => $op) {
            if ($op['state'] === 'running') {
                return $this->operation((string) $id);
            }
        }

        return null;
    }

    /** @return \Generator<string> the listing of what a backup may carry, as JSON Lines */
    public function listing(bool $encrypted): \Generator
    {
        $this->wantPaired();
        foreach ($encrypted ? [...self::PLAIN, ...self::ENCRYPTED_ONLY] : self::PLAIN as $kind) {
            $files = $this->content()->files($kind);
            yield self::json(['kind' => $kind, 'items' => count($files), 'storeSchema' => $this->state['storeSchemas'][$kind] ?? null]);
            foreach ($files as $path => $file) {
                yield self::json([
                    'kind' => $kind, 'path' => (string) $path, 'bytes' => $file->getSize(),
                    'sha256' => hash_file('sha256', $file->getPathname()), 'modifiedAt' => self::time($file->getMTime()),
                ]);
            }
        }
    }

    public function item(string $kind, string $path, bool $encrypted): string
    {
        $this->wantPaired();
        in_array($kind, self::PLAIN, true) || ($encrypted && in_array($kind, self::ENCRYPTED_ONLY, true)) || throw new Problem(403, 'encrypted-only', 'This kind is handed out only into an encrypted backup.');
        $file = $this->content()->path($kind, $path);

        return is_file($file) ? $file : throw new Problem(404, 'no-such-item', 'The device has no such item.');
    }

    /** @return array<string, mixed> */
    public function start(string $kind): array
    {
        match ($kind) {
            'pair', 'enter-recovery', 'restart', 'activate' => $this->wantMode('normal'),
            'leave-recovery' => $this->wantMode('recovery'),
            'set-up' => $this->wantActivated(),
            default => throw new Problem(404, 'not-found', 'The device does no such work.'),
        };
        if ($kind === 'activate' && $this->state['ownerLock'] === 'on' && ! $this->state['activated']) {
            throw new Problem(409, 'owner-account-wanted', 'The device is locked to its owner: the owner\'s account is to be entered on the device itself.');
        }

        return $this->begin($kind, []);
    }

    public function nonce(): string
    {
        $this->wantMode('recovery');

        return $this->state['nonce'] = bin2hex(random_bytes(16));
    }

    /**
     * @param  array<string, string>  $vendorKeys  raw keys by id
     * @return array<string, mixed>
     */
    public function install(string $permit, string $packageFile, array $vendorKeys): array
    {
        $this->wantMode('recovery');
        is_file($packageFile) || throw new Problem(409, 'package-missing', 'The device has not received the package.');
        $head = InstallJudge::check($this->state, $permit, $packageFile, $vendorKeys, (int) $this->now);
        $this->state['nonce'] = null;

        return $this->begin('install', ['head' => $head]);
    }

    /** @param  array<string, mixed>  $offer the backup's declared version and its kinds with their store schemas */
    public function offerReturn(array $offer): string
    {
        $this->wantPaired();
        $this->wantActivated();
        if ($this->state['ownerLock'] === 'on') {
            throw new Problem(409, 'owner-lock-on', 'The owner lock is on: switch it off before data is put back.');
        }
        $declared = $offer['declaredVersion'] ?? null;
        if (! is_string($declared) || version_compare($declared, $this->state['version'], '>')) {
            throw new Problem(409, 'backup-too-new', "This backup is from a newer version than {$this->state['version']}, which the device runs.");
        }
        $id = substr(hash('sha256', (string) json_encode($offer)), 0, 16);
        $this->state['returns'][$id] ??= $offer;

        return $id;
    }

    public function staging(string $return): Storage
    {
        isset($this->state['returns'][$return]) || throw new Problem(404, 'no-such-return', 'The device knows no such return.');

        return new Storage("{$this->folder}/returns/{$return}");
    }

    /** @return array<string, mixed> */
    public function commitReturn(string $return): array
    {
        $this->wantPaired();
        $staging = $this->staging($return);
        foreach ($this->state['returns'][$return]['kinds'] as $kind) {
            $have = count($staging->files($kind['kind']));
            $have === $kind['items'] || throw new Problem(409, 'return-incomplete', "Of {$kind['kind']}, {$have} of {$kind['items']} items were received.");
        }

        return $this->begin('return', ['return' => $return]);
    }

    /** @return array<string, mixed> */
    public function operation(string $id): array
    {
        $op = $this->state['operations'][$id] ?? throw new Problem(404, 'no-such-operation', 'The device knows no such work.');
        $at = Timeline::at($op['kind'], ($this->now - $op['startedAt']) * $this->speed);
        $over = $op['state'] !== 'running';

        return [
            'id' => $id, 'kind' => $op['kind'], 'state' => $op['state'], 'phase' => $at['phase'],
            'progress' => $over ? 1.0 : round($at['progress'], 4),
            'doNotDisturb' => ! $over && Timeline::mustNotBeDisturbed($op['kind'], $at['phase']),
            'error' => $op['error'] ?? null,
        ];
    }

    /**
     * The same work asked for twice is one piece of work, so that a caller that lost the answer may ask again.
     *
     * @param  array<string, mixed>  $facts
     * @return array<string, mixed>
     */
    private function begin(string $kind, array $facts): array
    {
        foreach ($this->state['operations'] as $id => $op) {
            if ($op['state'] === 'running') {
                return $op['kind'] === $kind ? $this->operation((string) $id) : throw new Problem(409, 'busy', 'The device is busy with other work.');
            }
        }
        $id = bin2hex(random_bytes(8));
        $this->state['operations'][$id] = ['kind' => $kind, 'state' => 'running', 'startedAt' => $this->now, 'done' => []] + $facts;

        return $this->operation($id);
    }

    private function advance(string $id): void
    {
        $op = &$this->state['operations'][$id];
        $at = Timeline::at($op['kind'], ($this->now - $op['startedAt']) * $this->speed);
        foreach ($at['begun'] as $phase) {
            if (! in_array($phase, $op['done'], true)) {
                $op['done'][] = $phase;
                $this->enterPhase($op, $phase);
            }
        }
        if ($at['over']) {
            $op['state'] = 'done';
            $this->finish($op);
        }
    }

    /** @param  array<string, mixed>  $op */
    private function enterPhase(array $op, string $phase): void
    {
        if ($op['kind'] === 'install' && $phase === 'write') {
            $this->wipe();
        }
        if ($op['kind'] === 'return' && $phase === 'apply') {
            $this->applyReturn($op['return']);
        }
        if ($phase === 'restart') {
            $this->state['mode'] = 'restarting';
        }
    }

    /** @param  array<string, mixed>  $op */
    private function finish(array $op): void
    {
        match ($op['kind']) {
            'pair' => $this->state['paired'] = true,
            'enter-recovery' => $this->state['mode'] = 'recovery',
            'install' => $this->runBuild($op['head']),
            'activate' => $this->state['activated'] = true,
            'set-up' => $this->setUp(),
            default => $this->state['mode'] = 'normal',
        };
    }

    /** Everything goes but the SIM profile. What was kept in sync elsewhere is elsewhere still. */
    private function wipe(): void
    {
        $cloud = new Storage("{$this->folder}/cloud");
        foreach ($this->content()->kinds() as $kind) {
            if (in_array($kind, $this->state['synced'], true)) {
                $cloud->take($this->content(), $kind);
            } elseif ($kind !== 'esim') {
                $this->content()->drop($kind);
            }
        }
        $this->state = ['paired' => false, 'activated' => false, 'setUp' => false, 'returns' => []] + $this->state;
    }

    /** @param  array<string, mixed>  $head */
    private function runBuild(array $head): void
    {
        $this->state = [
            'version' => $head['version'], 'build' => $head['build'], 'storeSchemas' => $head['storeSchemas'],
            'rollbackCounter' => max($this->state['rollbackCounter'], $head['rollbackIndex']), 'mode' => 'normal',
        ] + $this->state;
        $this->writeSystemSettings();
    }

    /** Takes what it can read; a kind whose store is newer than this version's is dropped. */
    private function applyReturn(string $return): void
    {
        foreach ($this->state['returns'][$return]['kinds'] as $kind) {
            $reads = $this->state['storeSchemas'][$kind['kind']] ?? null;
            if ($reads === null || $kind['storeSchema'] === null || $kind['storeSchema'] <= $reads) {
                $this->content()->take($this->staging($return), $kind['kind']);
            }
        }
        $this->writeSystemSettings();
    }

    private function setUp(): void
    {
        $cloud = new Storage("{$this->folder}/cloud");
        foreach ($cloud->kinds() as $kind) {
            $this->content()->copyFrom($cloud, $kind);
        }
        $this->state['setUp'] = true;
        $this->state['mode'] = 'normal';
    }

    /** The device rewrites its own system settings, whatever a backup says. */
    private function writeSystemSettings(): void
    {
        $this->content()->write('settings', 'system/about.json', self::json(['version' => $this->state['version'], 'build' => $this->state['build']]), (int) $this->now);
    }

    private function wantPaired(): void
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
        $this->state['mode'] === $mode || throw new Problem(409, "not-in-{$mode}-mode", "The device is in {$this->state['mode']} mode; this needs {$mode} mode.");
    }

    private static function time(?int $time): ?string
    {
        return $time === null ? null : gmdate('Y-m-d\TH:i:s\Z', $time);
    }

    /** @param  array<string, mixed>  $fields */
    private static function json(array $fields): string
    {
        return json_encode($fields, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
    }
}
