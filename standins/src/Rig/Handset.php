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

    /**
     * @param  array<string, mixed>  $state
     * @param  float  $now  of the rig's clock, by which work runs
     * @param  int  $today  of the wall's clock, by which permits run out and files are dated
     */
    public function __construct(public array $state, private readonly string $folder, private readonly float $now, private readonly int $today, private readonly float $speed)
    {
    }

    public function content(): Storage
    {
        return new Storage("{$this->folder}/content");
    }

    /** Carries out what is due. */
    public function catchUp(): void
    {
        $this->plugBack();
        $this->drain();
        if ($this->state['ownerLock'] === 'on' && $this->state['lockDelayEndsAt'] !== null && strtotime($this->state['lockDelayEndsAt']) <= $this->today) {
            $this->state = ['ownerLock' => 'off', 'lockDelayEndsAt' => null] + $this->state;
        }
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
                'syncedAt' => in_array($kind, $this->state['synced'], true) ? self::time($this->today - 300) : null,
            ];
        }
        $shown = ['serial', 'imei', 'hardwareId', 'modelName', 'osLine', 'version', 'build', 'rollbackCounter', 'radioMinimum', 'capacityBytes',
            'batteryPercent', 'charging', 'ownerLock', 'lockDelay', 'lockDelayEndsAt', 'betaEnrolled', 'mode', 'bootable', 'paired', 'activated', 'setUp'];

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

        is_file($file) || throw new Problem(404, 'no-such-item', 'The device has no such item.');
        if ($this->takeFault('content-changes') !== null) {
            file_put_contents($file, "\nchanged during the backup", FILE_APPEND);
            touch($file, $this->today);
        }

        return $file;
    }

    /** @return array<string, mixed> */
    public function start(string $kind): array
    {
        match ($kind) {
            'pair', 'enter-recovery', 'restart', 'activate' => $this->wantMode('normal'),
            'leave-recovery' => $this->wantBuild(),
            'set-up' => $this->wantActivated(),
            default => throw new Problem(404, 'not-found', 'The device does no such work.'),
        };
        if ($kind === 'activate' && $this->state['ownerLock'] === 'on' && ! $this->state['ownerEntered'] && ! $this->state['activated']) {
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
     * @param  bool  $keepData  an in-place move: nothing is wiped
     * @param  array<string, string>  $vendorKeys  raw keys by id
     * @return array<string, mixed>
     */
    public function install(string $permit, string $packageFile, bool $keepData, array $vendorKeys): array
    {
        $this->wantMode('recovery');
        is_file($packageFile) || throw new Problem(409, 'package-missing', 'The device has not received the package.');
        $this->state['charging'] || $this->state['batteryPercent'] >= 10 || throw new Problem(409, 'battery-low', "The battery stands at {$this->state['batteryPercent']} %: the device installs nothing below 10 % unless it is charging.");
        $head = InstallJudge::check($this->state, $permit, $packageFile, $keepData, $vendorKeys, $this->today);
        $this->state['nonce'] = null;

        return $this->begin('install', ['head' => $head, 'keepData' => $keepData]);
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
        $at = Timeline::at($op['kind'], $op['state'] === 'failed' ? $op['seen'] : $this->elapsed($op));
        $over = $op['state'] !== 'running';

        return [
            'id' => $id, 'kind' => $op['kind'], 'state' => $op['state'], 'phase' => $at['phase'],
            'progress' => $op['state'] === 'done' ? 1.0 : round($at['progress'], 4),
            'doNotDisturb' => ! $over && Timeline::mustNotBeDisturbed($op['kind'], $at['phase']),
            'wants' => $over ? null : $op['waits']['for'] ?? null,
            'error' => $op['error'] ?? null,
        ];
    }

    /**
     * Keys pressed on the device.
     *
     * @param  array<string, mixed>  $body
     */
    public function keys(array $body): void
    {
        $begins = Keys::press($this->state, $body, microtime(true));
        $begins === null ?: $this->begin($begins, []);
    }

    /** What its holder says or enters on the device, or for it elsewhere. */
    public function answer(string $answer): void
    {
        match ($answer) {
            'consent', 'passcode' => $this->goOnWith($answer),
            'owner-account' => $this->state['ownerEntered'] = true,
            // the lock's delay takes an hour; taken off the owner's account from elsewhere it has none
            'owner-lock-off' => $this->state = ($this->state['lockDelay'] === 'on' ? ['lockDelayEndsAt' => $this->state['lockDelayEndsAt'] ?? self::time($this->today + (int) ceil(3600 / $this->speed))] : ['ownerLock' => 'off']) + $this->state,
            'owner-lock-off-elsewhere' => $this->state = ['ownerLock' => 'off', 'lockDelayEndsAt' => null] + $this->state,
            'owner-lock-on' => $this->state['ownerLock'] = 'on',
            'charger-in' => $this->charge(),
            'charged' => $this->state['batteryPercent'] = 100,
            default => throw new Problem(400, 'bad-field', 'The device was not asked that.'),
        };
    }

    /** On a charging cable a battery does not fall any more. */
    private function charge(): void
    {
        $this->state['charging'] = true;
        $this->state['faults'] = array_values(array_filter($this->state['faults'], static fn (array $f): bool => $f['kind'] !== 'battery-falls'));
    }

    private function goOnWith(string $answer): void
    {
        foreach ($this->state['operations'] as &$op) {
            if ($op['state'] === 'running' && ($op['waits']['for'] ?? null) === $answer) {
                $op['startedAt'] += $this->now - $op['waits']['since'];
                unset($op['waits']);

                return;
            }
        }
        throw new Problem(409, 'not-asked', 'The device does not ask for this now.');
    }

    public function plugInto(string $port): void
    {
        $this->state = ['port' => $port, 'hidden' => false, 'backAt' => null] + $this->state;
    }

    /** Work that must not be disturbed breaks; other work goes on by itself. */
    public function unplug(): void
    {
        $this->state = ['lastPort' => $this->state['port'] ?? $this->state['lastPort'], 'port' => null] + $this->state;
        foreach ($this->state['operations'] as $id => $op) {
            if ($op['state'] === 'running' && (Timeline::mustNotBeDisturbed($op['kind'], Timeline::at($op['kind'], $this->elapsed($op))['phase']) || $op['kind'] === 'pair')) {
                $this->breakOff((string) $id, 'cable-out', $this->elapsed($op));
            }
        }
    }

    /** @param  array<string, mixed>  $body */
    public function fault(array $body): void
    {
        $fault = Faults::read($body, $this->now);
        if ($fault['kind'] === Faults::ON_THE_SHELF) {
            $this->fired($fault, BagHand::flip($this->state['serial']));
        } else {
            $this->state['faults'][] = $fault;
        }
    }

    public function withoutFaults(): void
    {
        $this->state['faults'] = [];
    }

    /** A link that flaps is there for a second and away for one. */
    public function linkIsAway(): bool
    {
        foreach ($this->state['faults'] as $i => $fault) {
            if ($fault['kind'] === 'link-flaps') {
                $for = $this->now - $fault['since'];
                if ($for <= ($fault['seconds'] ?? 30)) {
                    return (int) $for % 2 === 1;
                }
                array_splice($this->state['faults'], $i, 1);
                $this->fired($fault, 'The link flapped.');
            }
        }

        return false;
    }

    /** @return array<string, mixed>|null the first fault of a kind, which has happened then */
    public function takeFault(string $kind): ?array
    {
        foreach ($this->state['faults'] as $i => $fault) {
            if ($fault['kind'] === $kind) {
                array_splice($this->state['faults'], $i, 1);
                $this->fired($fault, null);

                return $fault;
            }
        }

        return null;
    }

    /** @param  array<string, mixed>  $fault */
    private function fired(array $fault, ?string $words): void
    {
        $this->state['fired'] = array_slice([...$this->state['fired'], ['kind' => $fault['kind'], 'at' => self::time($this->today), 'words' => $words]], -10);
    }

    private function plugBack(): void
    {
        if ($this->state['port'] === null && $this->state['backAt'] !== null && $this->state['backAt'] <= $this->now) {
            $this->plugInto($this->state['lastPort']);
        }
    }

    private function drain(): void
    {
        foreach ($this->state['faults'] as $i => $fault) {
            if ($fault['kind'] === 'battery-falls') {
                $left = $this->state['batteryPercent'] - ($this->now - $fault['since']) / 60 * $fault['perMinute'];
                if ((int) ceil($left) < $this->state['batteryPercent']) {
                    $this->state = ['batteryPercent' => max(1, (int) ceil($left)), 'charging' => false] + $this->state;
                    $this->state['faults'][$i]['since'] = $this->now;
                }
            }
        }
    }

    /** @param  array<string, mixed>  $op */
    private function elapsed(array $op): float
    {
        return ($op['waits']['since'] ?? $this->now) - $op['startedAt'];
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
        $this->state['operations'][$id] = ['kind' => $kind, 'state' => 'running', 'startedAt' => $this->now, 'seen' => 0.0, 'done' => []] + $facts + ($kind === 'pair' ? $this->asks() : []);
        $this->advance($id);

        return $this->operation($id);
    }

    /** @return array<string, array{for: string, since: float}> what has to be answered on the device before it says yes to a computer; mostly its holder is quick */
    private function asks(): array
    {
        foreach (['consent', 'passcode'] as $for) {
            if ($this->takeFault("{$for}-wanted") !== null) {
                return ['waits' => ['for' => $for, 'since' => $this->now]];
            }
        }

        return [];
    }

    private function advance(string $id): void
    {
        while (($op = $this->state['operations'][$id])['state'] === 'running') {
            $elapsed = $this->elapsed($op);
            $due = Faults::due($this->state['faults'], $op['kind'], $op['seen'], $elapsed);
            $this->reach($id, Timeline::at($op['kind'], $due[1] ?? $elapsed)['begun']);
            $this->state['operations'][$id]['seen'] = $due[1] ?? $elapsed;
            if ($due === null) {
                break;
            }
            $this->happen($id, $due[0], $due[1]);
        }
        if ($op['state'] === 'running' && Timeline::at($op['kind'], $this->elapsed($op))['over']) {
            $this->state['operations'][$id]['state'] = 'done';
            $this->finish($op);
            $this->comeBack($op['kind']);
        }
    }

    /** @param  list<string>  $begun */
    private function reach(string $id, array $begun): void
    {
        foreach (array_diff($begun, $this->state['operations'][$id]['done']) as $phase) {
            $this->state['operations'][$id]['done'][] = $phase;
            $this->enterPhase($this->state['operations'][$id], $phase);
        }
    }

    private function happen(string $id, int $which, float $at): void
    {
        $fault = $this->state['faults'][$which];
        array_splice($this->state['faults'], $which, 1);
        $this->fired($fault, "At {$fault['percent']} % of {$fault['phase']}.");
        $broken = Timeline::mustNotBeDisturbed($fault['work'], $fault['phase']);
        if ($fault['kind'] === 'cable-out') {
            $this->state = ['lastPort' => $this->state['port'] ?? $this->state['lastPort'], 'port' => null, 'backAt' => $fault['seconds'] === null ? null : $this->now + $fault['seconds']] + $this->state;
        }
        $broken || $fault['kind'] === 'work-fails' ? $this->breakOff($id, $fault['kind'] === 'cable-out' ? 'cable-out' : 'failed', $at) : null;
    }

    /** A broken install leaves a device that can be written again, though it may run nothing. */
    private function breakOff(string $id, string $error, float $at): void
    {
        $op = ['state' => 'failed', 'error' => $error, 'seen' => $at] + $this->state['operations'][$id];
        unset($op['waits']);
        $this->state['operations'][$id] = $op;
        if ($op['kind'] === 'install') {
            $this->state = ['mode' => 'recovery', 'bootable' => $this->state['bootable'] && ! in_array('write', $op['done'], true)] + $this->state;
        } elseif ($this->state['mode'] === 'restarting') {
            $this->state['mode'] = in_array($op['kind'], ['leave-recovery'], true) ? 'recovery' : 'normal';
        }
    }

    /** @param  array<string, mixed>  $op */
    private function enterPhase(array $op, string $phase): void
    {
        if ($op['kind'] === 'install' && $phase === 'write') {
            $this->state['writes'][] = ['build' => $op['head']['build'], 'keepsData' => $op['keepData'], 'at' => self::time($this->today)];
            $op['keepData'] ?: $this->wipe();
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

    /** After a restart a device may be locked again, or may not be recognised until it is unplugged and plugged in again. */
    private function comeBack(string $work): void
    {
        if ($work === 'install' && $this->takeFault('owner-lock-on') !== null) {
            $this->state['ownerLock'] = 'on';
        }
        if (in_array($work, ['install', 'return', 'leave-recovery'], true) && $this->takeFault('not-recognised') !== null) {
            $this->state['hidden'] = true;
        }
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
        Storage::remove("{$this->folder}/returns");
        $this->state = ['paired' => false, 'activated' => false, 'setUp' => false, 'ownerEntered' => false, 'wiped' => true, 'returns' => []] + $this->state;
    }

    /** @param  array<string, mixed>  $head */
    private function runBuild(array $head): void
    {
        $this->state = [
            'version' => $head['version'], 'build' => $head['build'], 'storeSchemas' => $head['storeSchemas'],
            'rollbackCounter' => max($this->state['rollbackCounter'], $head['rollbackIndex']), 'mode' => 'normal',
            'bootable' => true, 'wiped' => false,
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
        $this->content()->write('settings', 'system/about.json', self::json(['version' => $this->state['version'], 'build' => $this->state['build']]), $this->today);
    }

    private function wantBuild(): void
    {
        $this->wantMode('recovery');
        $this->state['bootable'] || throw new Problem(409, 'not-bootable', 'The device runs no build now: it leaves recovery mode when one has been installed.');
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
