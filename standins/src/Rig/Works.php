<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/** The work that runs on a device, phase by phase, and what it does to it. */
final readonly class Works
{
    public function __construct(private Handset $device)
    {
    }

    /**
     * The same work asked for twice is one piece of work, so that a caller that lost the answer may ask again.
     *
     * @param  array<string, mixed>  $facts
     * @return array<string, mixed>
     */
    public function begin(string $kind, array $facts): array
    {
        foreach ($this->device->state['operations'] as $id => $op) {
            if ($op['state'] === 'running') {
                return $op['kind'] === $kind
                    ? $this->operation((string) $id)
                    : throw new Problem(409, 'busy', 'The device is busy with other work.');
            }
        }
        $id = bin2hex(random_bytes(8));
        $this->device->state['operations'][$id] =
            ['kind' => $kind, 'state' => 'running', 'startedAt' => $this->device->now, 'seen' => 0.0, 'done' => []]
            + $facts
            + ($kind === 'pair' ? $this->asks() : []);
        $this->advance($id);

        return $this->operation($id);
    }

    /**
     * @return array<string, array{for: string, since: float}> what has to be answered on the device before it says
     *   yes to a computer; mostly its holder is quick
     */
    private function asks(): array
    {
        foreach (['consent', 'passcode'] as $for) {
            if ($this->device->hands()->takeFault("{$for}-wanted") !== null) {
                return ['waits' => ['for' => $for, 'since' => $this->device->now]];
            }
        }

        return [];
    }

    /** @return array<string, mixed>|null the work that goes on now */
    public function running(): ?array
    {
        foreach ($this->device->state['operations'] as $id => $op) {
            if ($op['state'] === 'running') {
                return $this->operation((string) $id);
            }
        }

        return null;
    }

    /** @return array<string, mixed> */
    public function operation(string $id): array
    {
        $op =
            $this->device->state['operations'][$id]
            ?? throw new Problem(404, 'no-such-operation', 'The device knows no such work.');
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

    /** @param  array<string, mixed>  $op */
    public function elapsed(array $op): float
    {
        return ($op['waits']['since'] ?? $this->device->now) - $op['startedAt'];
    }

    public function advance(string $id): void
    {
        while (($op = $this->device->state['operations'][$id])['state'] === 'running') {
            $elapsed = $this->elapsed($op);
            $due = Faults::due($this->device->state['faults'], $op['kind'], $op['seen'], $elapsed);
            $this->reach($id, Timeline::at($op['kind'], $due[1] ?? $elapsed)['begun']);
            $this->device->state['operations'][$id]['seen'] = $due[1] ?? $elapsed;
            if ($due === null) {
                break;
            }
            $this->happen($id, $due[0], $due[1]);
        }
        if ($op['state'] === 'running' && Timeline::at($op['kind'], $this->elapsed($op))['over']) {
            $this->device->state['operations'][$id]['state'] = 'done';
            $this->finish($op);
            $this->comeBack($op['kind']);
        }
    }

    /** @param  list<string>  $begun */
    private function reach(string $id, array $begun): void
    {
        foreach (array_diff($begun, $this->device->state['operations'][$id]['done']) as $phase) {
            $this->device->state['operations'][$id]['done'][] = $phase;
            $this->enterPhase($this->device->state['operations'][$id], $phase);
        }
    }

    private function happen(string $id, int $which, float $at): void
    {
        $fault = $this->device->state['faults'][$which];
        array_splice($this->device->state['faults'], $which, 1);
        $this->device->hands()->fired($fault, "At {$fault['percent']} % of {$fault['phase']}.");
        $broken = Timeline::mustNotBeDisturbed($fault['work'], $fault['phase']);
        if ($fault['kind'] === 'cable-out') {
            $this->device->state =
                [
                    'lastPort' => $this->device->state['port'] ?? $this->device->state['lastPort'],
                    'port' => null,
                    'backAt' => $fault['seconds'] === null ? null : $this->device->now + $fault['seconds'],
                ] + $this->device->state;
        }
        $broken || $fault['kind'] === 'work-fails'
            ? $this->breakOff($id, $fault['kind'] === 'cable-out' ? 'cable-out' : 'failed', $at)
            : null;
    }

    /** A broken install leaves a device that can be written again, though it may run nothing. */
    public function breakOff(string $id, string $error, float $at): void
    {
        $op = ['state' => 'failed', 'error' => $error, 'seen' => $at] + $this->device->state['operations'][$id];
        unset($op['waits']);
        $this->device->state['operations'][$id] = $op;
        if ($op['kind'] === 'install') {
            $this->device->state =
                [
                    'mode' => 'recovery',
                    'bootable' => $this->device->state['bootable'] && ! in_array('write', $op['done'], true),
                ] + $this->device->state;
        } elseif ($this->device->state['mode'] === 'restarting') {
            $this->device->state['mode'] = in_array($op['kind'], ['leave-recovery'], true) ? 'recovery' : 'normal';
        }
    }

    /** @param  array<string, mixed>  $op */
    private function enterPhase(array $op, string $phase): void
    {
        if ($op['kind'] === 'install' && $phase === 'write') {
            $this->device->state['writes'][] = [
                'build' => $op['head']['build'],
                'keepsData' => $op['keepData'],
                'at' => Handset::time($this->device->today),
            ];
            $op['keepData'] ?: $this->wipe();
        }
        if ($op['kind'] === 'return' && $phase === 'apply') {
            $this->applyReturn($op['return']);
        }
        if ($op['kind'] === 'cloud-return' && $phase === 'fetch') {
            $this->fetchFromCloud();
        }
        if ($phase === 'restart') {
            $this->device->state['mode'] = 'restarting';
        }
    }

    /** @param  array<string, mixed>  $op */
    private function finish(array $op): void
    {
        match ($op['kind']) {
            'pair' => $this->device->state['paired'] = true,
            'enter-recovery' => $this->device->state['mode'] = 'recovery',
            'install' => $this->runBuild($op['head']),
            'activate' => $this->device->state['activated'] = true,
            'set-up' => $this->setUp(),
            default => $this->device->state['mode'] = 'normal',
        };
    }

    /**
     * After a restart a device may be locked again, or may not be recognised until it is unplugged and plugged in
     * again.
     */
    private function comeBack(string $work): void
    {
        if ($work === 'install' && $this->device->hands()->takeFault('owner-lock-on') !== null) {
            $this->device->state['ownerLock'] = 'on';
        }
        if (
            in_array($work, ['install', 'return', 'cloud-return', 'leave-recovery'], true)
            && $this->device->hands()->takeFault('not-recognised') !== null
        ) {
            $this->device->state['hidden'] = true;
        }
    }

    /** Everything goes but the SIM profile. What was kept in sync elsewhere is elsewhere still. */
    private function wipe(): void
    {
        $cloud = new Storage("{$this->device->folder}/cloud");
        foreach ($this->device->content()->kinds() as $kind) {
            if (in_array($kind, $this->device->state['synced'], true)) {
                $cloud->take($this->device->content(), $kind);
            } elseif ($kind !== 'esim') {
                $this->device->content()->drop($kind);
            }
        }
        Storage::remove("{$this->device->folder}/returns");
        $this->device->state =
            [
                'paired' => false,
                'activated' => false,
                'setUp' => false,
                'ownerEntered' => false,
                'cloudReturn' => null,
                'wiped' => true,
                'returns' => [],
            ] + $this->device->state;
    }

    /** Somebody else erases the device, installs the build before on it, and starts it empty. */
    public function installElsewhere(): void
    {
        $this->wipe();
        $this->runBuild($this->device->state['elsewhere']);
        $this->device->state = ['activated' => true, 'setUp' => true] + $this->device->state;
    }

    /** @param  array<string, mixed>  $head */
    private function runBuild(array $head): void
    {
        $this->device->state =
            [
                'version' => $head['version'],
                'build' => $head['build'],
                'storeSchemas' => $head['storeSchemas'],
                'rollbackCounter' => max($this->device->state['rollbackCounter'], $head['rollbackIndex']),
                'mode' => 'normal',
                'bootable' => true,
                'wiped' => false,
            ] + $this->device->state;
        $this->writeSystemSettings();
    }

    /** Takes what it can read; a kind whose store is newer than this version's is dropped. */
    private function applyReturn(string $return): void
    {
        foreach ($this->device->state['returns'][$return]['kinds'] as $kind) {
            $reads = $this->device->state['storeSchemas'][$kind['kind']] ?? null;
            if ($reads === null || $kind['storeSchema'] === null || $kind['storeSchema'] <= $reads) {
                $this->device->content()->take($this->device->staging($return), $kind['kind']);
            }
        }
        $this->dropOne();
        $this->settleIn();
    }

    /** The owner's cloud backup, which the device fetches by itself. */
    private function fetchFromCloud(): void
    {
        $cloud = new Storage("{$this->device->folder}/cloud-backup");
        foreach ($this->device->state['cloudBackup']['kinds'] ?? [] as $kind) {
            $this->device->content()->drop($kind);
            $this->device->content()->copyFrom($cloud, $kind);
        }
        $this->device->state['cloudReturn'] = ['state' => 'fetched', 'words' => null];
        $this->settleIn();
    }

    /** A return that goes well, but for one item. */
    private function dropOne(): void
    {
        $files = $this->device->content()->files('photos') ?: $this->device->content()->files('notes');
        if ($files !== [] && $this->device->hands()->takeFault('item-dropped') !== null) {
            unlink(array_values($files)[intdiv(count($files), 2)]->getPathname());
        }
    }

    private function setUp(): void
    {
        $this->device->state['setUp'] = true;
        $this->device->state['mode'] = 'normal';
        if ($this->device->hands()->takeFault('sync-late') !== null) {
            $this->device->state['syncLate'] = true;
        } else {
            $this->sync();
        }
    }

    /** What was kept in sync elsewhere comes back. */
    public function sync(): void
    {
        $cloud = new Storage("{$this->device->folder}/cloud");
        foreach ($cloud->kinds() as $kind) {
            $this->device->content()->copyFrom($cloud, $kind);
        }
        $this->device->state['syncLate'] = false;
    }

    private function settleIn(): void
    {
        $this->writeSystemSettings();
        $this->leaveAppsOut();
    }

    /** A home layout shows no app that does not run on this version. */
    private function leaveAppsOut(): void
    {
        $file = $this->device->content()->files('home-layout')['layout.json'] ?? null;
        $layout = $file === null ? null : json_decode((string) file_get_contents($file->getPathname()), true);
        $gone = array_column(
            array_filter($this->device->state['apps'], fn (array $a): bool => ! $this->device->runs($a)),
            'id',
        );
        if (! is_array($layout) || $gone === []) {
            return;
        }
        $left = self::without($layout, $gone);
        if ($left !== $layout) {
            $this->device->content()->write('home-layout', 'layout.json', Handset::json($left), $this->device->today);
        }
    }

    /**
     * @param  array<mixed>  $part  of a layout
     * @param  list<string>  $gone
     * @return array<mixed>
     */
    private static function without(array $part, array $gone): array
    {
        $left = [];
        foreach ($part as $key => $value) {
            if (! in_array($value, $gone, true)) {
                $left[$key] = is_array($value) ? self::without($value, $gone) : $value;
            }
        }

        return array_is_list($part) ? array_values($left) : $left;
    }

    /** The device rewrites its own system settings, whatever a backup says. */
    private function writeSystemSettings(): void
    {
        $this->device
            ->content()
            ->write(
                'settings',
                'system/about.json',
                Handset::json(['version' => $this->device->state['version'], 'build' => $this->device->state['build']]),
                $this->device->today,
            );
    }
}
