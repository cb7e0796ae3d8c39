<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/** What hands do to a device, and what goes wrong with it. */
final readonly class Hands
{
    public function __construct(private Handset $device)
    {
    }

    /**
     * Keys pressed on the device.
     *
     * @param  array<string, mixed>  $body
     */
    public function keys(array $body): void
    {
        $begins = Keys::press($this->device->state, $body, microtime(true));
        $begins === null ?: $this->device->works()->begin($begins, []);
    }

    /** What its holder says or enters on the device, or for it elsewhere. */
    public function answer(string $answer): void
    {
        match ($answer) {
            'consent', 'passcode' => $this->goOnWith($answer),
            'owner-account' => $this->device->state['ownerEntered'] = true,
            // the lock's delay takes an hour; taken off the owner's account from elsewhere it has none
            'owner-lock-off' => ($this->device->state =
                ($this->device->state['lockDelay'] === 'on'
                    ? [
                        'lockDelayEndsAt' => $this->device->state['lockDelayEndsAt']
                            ?? Handset::time($this->device->today + (int) ceil(3600 / $this->device->speed)),
                    ]
                    : ['ownerLock' => 'off']) + $this->device->state),
            'owner-lock-off-elsewhere' => ($this->device->state =
                ['ownerLock' => 'off', 'lockDelayEndsAt' => null] + $this->device->state),
            'owner-lock-on' => ($this->device->state['ownerLock'] = 'on'),
            // its holder takes back what it said to this computer
            'pairing-withdrawn' => $this->device->state['paired'] = false,
            'cloud-return' => $this->cloudReturn(),
            'installed-elsewhere' => $this->device->works()->installElsewhere(),
            'sync-arrives' => $this->device->works()->sync(),
            'charger-in' => $this->charge(),
            'charged' => $this->device->state['batteryPercent'] = 100,
            default => throw new Problem(400, 'bad-field', 'The device was not asked that.'),
        };
    }

    /** The device says on its screen where it refuses what its owner's cloud holds, and tells so to who asks. */
    private function cloudReturn(): void
    {
        try {
            $this->device->returnFromCloud();
        } catch (Problem $e) {
            $e->reason === 'backup-too-new' || throw $e;
            $this->device->state['cloudReturn'] = ['state' => 'refused', 'words' => $e->getMessage()];
        }
    }

    /** On a charging cable a battery does not fall any more. */
    private function charge(): void
    {
        $this->device->state['charging'] = true;
        $this->device->state['faults'] = array_values(
            array_filter($this->device->state['faults'], static fn (array $f): bool => $f['kind'] !== 'battery-falls'),
        );
    }

    private function goOnWith(string $answer): void
    {
        foreach ($this->device->state['operations'] as &$op) {
            if ($op['state'] === 'running' && ($op['waits']['for'] ?? null) === $answer) {
                $op['startedAt'] += $this->device->now - $op['waits']['since'];
                unset($op['waits']);

                return;
            }
        }
        throw new Problem(409, 'not-asked', 'The device does not ask for this now.');
    }

    public function plugInto(string $port): void
    {
        $this->device->state = ['port' => $port, 'hidden' => false, 'backAt' => null] + $this->device->state;
    }

    /** Work that must not be disturbed breaks; other work goes on by itself. */
    public function unplug(): void
    {
        $this->device->state =
            ['lastPort' => $this->device->state['port'] ?? $this->device->state['lastPort'], 'port' => null]
            + $this->device->state;
        foreach ($this->device->state['operations'] as $id => $op) {
            if (
                $op['state'] === 'running'
                && (Timeline::mustNotBeDisturbed(
                    $op['kind'],
                    Timeline::at($op['kind'], $this->device->works()->elapsed($op))['phase'],
                )
                    || $op['kind'] === 'pair')
            ) {
                $this->device->works()->breakOff((string) $id, 'cable-out', $this->device->works()->elapsed($op));
            }
        }
    }

    /** @param  array<string, mixed>  $body */
    public function fault(array $body): void
    {
        $fault = Faults::read($body, $this->device->now);
        if ($fault['kind'] === Faults::ON_THE_SHELF) {
            $this->fired($fault, BagHand::flip($this->device->state['serial']));
        } else {
            $this->device->state['faults'][] = $fault;
        }
    }

    public function withoutFaults(): void
    {
        $this->device->state['faults'] = [];
    }

    /** A link that flaps is there for a second and away for one. */
    public function linkIsAway(): bool
    {
        foreach ($this->device->state['faults'] as $i => $fault) {
            if ($fault['kind'] === 'link-flaps') {
                $for = $this->device->now - $fault['since'];
                if ($for <= ($fault['seconds'] ?? 30)) {
                    return (int) $for % 2 === 1;
                }
                array_splice($this->device->state['faults'], $i, 1);
                $this->fired($fault, 'The link flapped.');
            }
        }

        return false;
    }

    /** @return array<string, mixed>|null the first fault of a kind, which has happened then */
    public function takeFault(string $kind): ?array
    {
        foreach ($this->device->state['faults'] as $i => $fault) {
            if ($fault['kind'] === $kind) {
                array_splice($this->device->state['faults'], $i, 1);
                $this->fired($fault, null);

                return $fault;
            }
        }

        return null;
    }

    /** @param  array<string, mixed>  $fault */
    public function fired(array $fault, ?string $words): void
    {
        $this->device->state['fired'] = array_slice(
            [
                ...$this->device->state['fired'],
                ['kind' => $fault['kind'], 'at' => Handset::time($this->device->today), 'words' => $words],
            ],
            -10,
        );
    }

    public function plugBack(): void
    {
        if (
            $this->device->state['port'] === null
            && $this->device->state['backAt'] !== null
            && $this->device->state['backAt'] <= $this->device->now
        ) {
            $this->plugInto($this->device->state['lastPort']);
        }
    }

    public function drain(): void
    {
        foreach ($this->device->state['faults'] as $i => $fault) {
            if ($fault['kind'] === 'battery-falls') {
                $left =
                    $this->device->state['batteryPercent']
                    - (($this->device->now - $fault['since']) / 60) * $fault['perMinute'];
                if ((int) ceil($left) < $this->device->state['batteryPercent']) {
                    $this->device->state =
                        ['batteryPercent' => max(1, (int) ceil($left)), 'charging' => false] + $this->device->state;
                    $this->device->state['faults'][$i]['since'] = $this->device->now;
                }
            }
        }
    }
}
