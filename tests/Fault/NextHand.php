<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Device\Kind;

/**
 * Takes the hand that a job names next, as somebody would who believes every word of it, at the screen and at the
 * device.
 */
final readonly class NextHand
{
    public function __construct(
        private PatientVisitor $visitor,
        private PatientRig $rig,
        private string $serial,
        private string $port,
    ) {
    }

    /**
     * @param  array<string, mixed>  $job  as the API tells it
     * @return string what was done
     */
    public function take(array $job): string
    {
        $now = $job['now'];
        if ($job['state'] !== 'open' || $now['who'] === 'nobody') {
            return 'nothing';
        }
        $now['act'] === null ? $this->atTheDevice($job) : $this->act($job, $now['act']);

        return $now['act'] ?? $now['what'];
    }

    /** @param  array<string, mixed>  $job */
    private function act(array $job, string $act): void
    {
        $at = "/jobs/{$job['id']}";
        match ($act) {
            'attach-device' => $this->rig->plug($this->serial, $this->port),
            'plan' => $this->plan($job),
            'accept-route' => $this->acceptRoute($job),
            'give-passphrase' => $this->visitor->send('POST', "{$at}/passphrase", [
                'passphrase' => 'slack water at noon',
                'again' => 'slack water at noon',
            ]),
            'attest' => [
                $this->visitor->send('PUT', "{$at}/attestations/owner-account-at-hand"),
                $this->visitor->send('PUT', "{$at}/attestations/passcode-known"),
            ],
            'ask-to-pair' => $this->askToPair($at),
            'choose-again' => $this->visitor->send('POST', "{$at}/choose-again"),
            'back-up-again' => $this->visitor->send('POST', "{$at}/backup-again"),
            'cross-line' => $this->visitor->send('POST', "{$at}/line", ['serial' => $job['serial']]),
            'ask-over-cable' => $this->visitor->send('POST', "{$at}/recovery/cable"),
            'confirm-install' => $this->visitor->send('POST', "{$at}/recovery/install"),
            'leave-recovery' => $this->visitor->send('POST', "{$at}/recovery/leave"),
            'go-onward' => $this->goOnward($job),
            'try-again' => $this->visitor->send('POST', "{$at}/steps/{$job['now']['step']}/retry"),
            'end-look' => $this->visitor->send('DELETE', "{$at}/look-first"),
            'choose-return' => $this->chooseReturn($job),
            'tick-overlay' => $this->tickOverlays($job),
            'put-items-back' => $this->putItemsBack($job),
            'hand-over' => $this->visitor->send('POST', "{$at}/hand-over", [
                'accept' => $job['verdict']['unnamedKinds'],
            ]),
            'give-back' => $this->visitor->send('POST', "{$at}/give-back", [
                'reason' => 'Nothing else is left to do here.',
            ]),
            'leave' => $this->visitor->send('POST', "{$at}/leave"),
            default => throw new \LogicException("Nobody knows how to do {$act}."),
        };
    }

    /** @param  array<string, mixed>  $job */
    private function atTheDevice(array $job): void
    {
        $now = $job['now'];
        $steps = array_values(
            array_filter(
                $job['steps'],
                static fn (array $s): bool => $s['code'] === $now['step'] && $s['leg'] === $now['leg'],
            ),
        );
        match ($steps[0]['problem']['code'] ?? '') {
            'consent-wanted' => $this->answer('consent'),
            'passcode-wanted' => $this->answer('passcode'),
            'owner-account-wanted' => $this->answer('owner-account'),
            'owner-lock-on' => $this->answer('owner-lock-off-elsewhere'),
            'device-not-seen', 'link-lost', 'not-recognised', 'plug-in-wanted' => $this->replug(),
            'recovery-wanted', 'recovery-not-seen' => $this->rig->press($this->serial),
            'sync-wanted' => $this->answer('sync-arrives'),
            'cloud-return-wanted', 'cloud-return-partly' => $this->answer('cloud-return'),
            'battery-low' => $this->answer('charger-in'),
            default => $this->mend($job['checks']),
        };
    }

    /** @param  list<array<string, mixed>>  $checks */
    private function mend(array $checks): void
    {
        foreach ($checks as $check) {
            $fails = $check['blocks'] !== 'nothing' && in_array($check['state'], ['fail', 'unknown'], true);
            match ($fails ? $check['code'] : '') {
                'battery' => $this->answer('charger-in'),
                'owner-lock-off', 'lock-delay' => $this->answer('owner-lock-off-elsewhere'),
                'almanac-fresh' => $this->visitor->send('POST', '/almanac/refresh'),
                'paired' => $this->answer('consent'),
                default => null,
            };
        }
    }

    private function askToPair(string $at): void
    {
        $this->visitor->send('POST', "{$at}/pair");
        usleep(300_000);
        // the device says on its screen which of them it wants
        $this->answer('passcode');
        $this->answer('consent');
    }

    /** @param  array<string, mixed>  $job */
    private function plan(array $job): void
    {
        $nearest = $job['plan']['nearest'] ?? null;
        $nearest === null && $this->visitor->send('POST', '/almanac/refresh');
        $goal = $nearest === null ? ['newestInMajor' => 8] : ['exact' => $nearest['version']];
        $this->visitor->send('PUT', "/jobs/{$job['id']}/goal", ['goal' => $goal]);
    }

    /** @param  array<string, mixed>  $job */
    private function acceptRoute(array $job): void
    {
        foreach (array_slice($job['plan']['routes'] ?? [], 0, 1) as $route) {
            $this->visitor->send('PUT', "/jobs/{$job['id']}/route", self::taking($route));
        }
    }

    /** @param  array<string, mixed>  $job */
    private function goOnward(array $job): void
    {
        foreach ($this->visitor->ask('GET', "/jobs/{$job['id']}/onward")['plans'] ?? [] as $offer) {
            foreach (array_slice($offer['plan']['routes'], 0, 1) as $route) {
                $this->visitor->send(
                    'POST',
                    "/jobs/{$job['id']}/onward",
                    ['goal' => $offer['goal']] + self::taking($route),
                );

                return;
            }
        }
    }

    /**
     * @param  array<string, mixed>  $route
     * @return array<string, mixed>
     */
    private static function taking(array $route): array
    {
        $losses = [
            'pairingLost' => $route['losses']['pairingLost'],
            'appsUnavailable' => $route['losses']['appsUnavailable'],
        ];

        return [
            'route' => $route['id'],
            'build' => $route['legs'][count($route['legs']) - 1]['to']['build'],
            'accept' => $losses,
        ];
    }

    /** @param  array<string, mixed>  $job */
    private function chooseReturn(array $job): void
    {
        $told = $this->visitor->ask('GET', "/jobs/{$job['id']}/return");
        $backup = $told['proposed'];
        $mode = $backup === null ? 'put-nothing-back' : ($backup === 'cloud' ? 'from-cloud' : 'put-back');
        $this->visitor->send('PUT', "/jobs/{$job['id']}/return", [
            'mode' => $mode,
            'backup' => $backup,
            'kinds' => [],
            'accept' => array_column(Kind::cases(), 'value'),
        ]);
    }

    /** @param  array<string, mixed>  $job */
    private function tickOverlays(array $job): void
    {
        foreach ($this->visitor->ask('GET', "/jobs/{$job['id']}/return")['overlays'] as $kind => $overlay) {
            $overlay['state'] === 'waiting'
                && $this->visitor->send('PUT', "/jobs/{$job['id']}/overlays/{$kind}", ['state' => 'not-waited']);
        }
        $this->visitor->send('PUT', "/jobs/{$job['id']}/overlays/cloud", ['state' => 'attested']);
        $this->answer('sync-arrives');
    }

    /** @param  array<string, mixed>  $job */
    private function putItemsBack(array $job): void
    {
        $items = $this->visitor->ask('GET', "/jobs/{$job['id']}/missing")['items'];
        $there = array_filter($items, static fn (array $i): bool => $i['oneByOne'] && $i['bags'] !== []);
        $back = array_map(
            static fn (array $i): array => ['kind' => $i['kind'], 'path' => $i['path'], 'bag' => $i['bags'][0]['id']],
            $there,
        );
        $this->visitor->send('POST', "/jobs/{$job['id']}/missing", ['items' => array_values($back)]);
    }

    private function answer(string $what): void
    {
        $this->rig->answer($this->serial, $what);
    }

    private function replug(): void
    {
        $this->rig->plug($this->serial, null);
        $this->rig->plug($this->serial, $this->port);
    }
}
