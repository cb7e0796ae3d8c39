<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Device\Kind;
use Random\Randomizer;

/** What people may send to a job, to the Shelf and to the shop: open or not, sensible or not. */
final class ActRequests
{
    private const REASON = 'It is said that nobody needs it.';

    /**
     * @param  array<string, mixed>  $job  as the API tells it
     * @return non-empty-array<string, array{string|null, string, string, array<string, mixed>, bool}> by name: the
     *   act of the
     * model, and the request; whether a lead sends it
     */
    public static function of(array $job, PatientVisitor $lead, Randomizer $random): array
    {
        return self::before($job, $random) + self::after($job, $random) + self::ofTheShop($job, $lead, $random);
    }

    /**
     * @param  array<string, mixed>  $job
     * @return array<string, array{string|null, string, string, array<string, mixed>, bool}>
     */
    private static function before(array $job, Randomizer $random): array
    {
        $at = "/jobs/{$job['id']}";
        $route = $job['plan']['routes'][0] ?? null;
        $end = $route === null ? 'none' : $route['legs'][count($route['legs']) - 1]['to']['build'];
        $accept = [
            'pairingLost' => $route['losses']['pairingLost'] ?? [],
            'appsUnavailable' => $route['losses']['appsUnavailable'] ?? [],
        ];
        $goals = [
            ['newestInMajor' => 8],
            ['newestBelow' => '9.3'],
            ['exact' => '8.7'],
            ['words' => 'newest in 8'],
            ['exact' => '8.2'],
            ['words' => 'abc'],
        ];

        return [
            'plan' => ['plan', 'PUT', "{$at}/goal", ['goal' => $goals[$random->getInt(0, count($goals) - 1)]], false],
            'accept-route' => [
                'accept-route',
                'PUT',
                "{$at}/route",
                ['route' => $route['id'] ?? 'r1', 'build' => $end, 'accept' => $accept],
                false,
            ],
            'choose-backup' => [
                'choose-backup',
                'PUT',
                "{$at}/backup",
                ['encryption' => 'plain', 'sideExports' => []],
                false,
            ],
            'tell-of-cloud' => ['tell-of-cloud', 'PUT', "{$at}/cloud", ['backup' => null, 'syncs' => []], false],
            'see-changes' => ['see-changes', 'DELETE', "{$at}/flag", [], false],
            'give-passphrase' => [
                'give-passphrase',
                'POST',
                "{$at}/passphrase",
                ['passphrase' => 'slack water at noon', 'again' => 'slack water at noon'],
                false,
            ],
            'attest' => ['attest', 'PUT', "{$at}/attestations/passcode-known", [], false],
            'take-back-attestation' => [
                'take-back-attestation',
                'DELETE',
                "{$at}/attestations/passcode-known",
                [],
                false,
            ],
            'describe' => ['describe', 'PUT', "{$at}/about", ['holder' => 'Mira Vos', 'box' => 'Fenn 7'], false],
            'ask-to-pair' => ['ask-to-pair', 'POST', "{$at}/pair", [], false],
            'choose-again' => ['choose-again', 'POST', "{$at}/choose-again", [], false],
            'back-up-again' => ['back-up-again', 'POST', "{$at}/backup-again", [], false],
            'cross-line' => ['cross-line', 'POST', "{$at}/line", ['serial' => $job['serial']], false],
            'cross-line with another serial' => [null, 'POST', "{$at}/line", ['serial' => 'SKL-0001'], false],
            'ask-over-cable' => ['ask-over-cable', 'POST', "{$at}/recovery/cable", [], false],
            'confirm-install' => ['confirm-install', 'POST', "{$at}/recovery/install", [], false],
            'leave-recovery' => ['leave-recovery', 'POST', "{$at}/recovery/leave", [], false],
            'leave' => $random->getInt(0, 9) === 0
                    ? ['leave', 'POST', "{$at}/leave", [], false]
                    : [null, 'GET', $at, [], false],
        ];
    }

    /**
     * @param  array<string, mixed>  $job
     * @return array<string, array{string|null, string, string, array<string, mixed>, bool}>
     */
    private static function after(array $job, Randomizer $random): array
    {
        $at = "/jobs/{$job['id']}";
        $step = $job['steps'][$random->getInt(0, count($job['steps']) - 1)]['code'];
        $bag = $job['bags'] === [] ? 'no-such-bag' : $job['bags'][$random->getInt(0, count($job['bags']) - 1)]['id'];
        $accept = $random->getInt(0, 2) === 0 ? array_column(Kind::cases(), 'value') : [];

        return [
            'try-again' => ['try-again', 'POST', "{$at}/steps/{$step}/retry", [], false],
            'look-first' => ['look-first', 'PUT', "{$at}/look-first", [], false],
            'end-look' => ['end-look', 'DELETE', "{$at}/look-first", [], false],
            'put a bag back' => [
                'choose-return',
                'PUT',
                "{$at}/return",
                ['mode' => 'put-back', 'backup' => $bag, 'kinds' => [], 'accept' => $accept],
                false,
            ],
            'keep as new' => [
                'choose-return',
                'PUT',
                "{$at}/return",
                ['mode' => 'keep-as-new', 'backup' => $bag, 'kinds' => ['contacts'], 'accept' => $accept],
                false,
            ],
            'put nothing back' => [
                'choose-return',
                'PUT',
                "{$at}/return",
                ['mode' => 'put-nothing-back', 'backup' => null, 'kinds' => [], 'accept' => $accept],
                false,
            ],
            'tick-overlay' => ['tick-overlay', 'PUT', "{$at}/overlays/photos", ['state' => 'attested'], false],
            'put items back' => [
                'put-items-back',
                'POST',
                "{$at}/missing",
                ['items' => [['kind' => 'photos', 'path' => 'album-01/none.jpg', 'bag' => $bag]]],
                false,
            ],
            'read-for-aftercare' => ['read-for-aftercare', 'POST', "{$at}/aftercare/look", [], false],
            'tick-aftercare' => ['tick-aftercare', 'PUT', "{$at}/aftercare/cards-again", ['done' => true], false],
            'hand-over' => ['hand-over', 'POST', "{$at}/hand-over", ['accept' => []], false],
            'give-back' => $random->getInt(0, 9) === 0
                    ? ['give-back', 'POST', "{$at}/give-back", ['reason' => self::REASON], false]
                    : [null, 'GET', $at, [], false],
            'ask for the return' => [null, 'GET', "{$at}/return", [], false],
            'ask for what is missing' => [null, 'GET', "{$at}/missing", [], false],
            'ask for the way onward' => [null, 'GET', "{$at}/onward", [], false],
        ];
    }

    /**
     * @param  array<string, mixed>  $job
     * @return array<string, array{string|null, string, string, array<string, mixed>, bool}>
     */
    private static function ofTheShop(array $job, PatientVisitor $lead, Randomizer $random): array
    {
        $bags = $job['bags'] === [] ? ['no-such-bag'] : array_column($job['bags'], 'id');
        $bag = $bags[$random->getInt(0, count($bags) - 1)];
        $package = $job['route']['legs'][0]['package']['sha256'] ?? str_repeat('0', 64);
        $keeping = [
            'nightly' => false,
            'fromHour' => 22,
            'untilHour' => 5,
            'daily' => 1,
            'weekly' => 0,
            'verifyEveryDays' => 30,
            'sealedDays' => 30,
        ];

        return [
            'delete a bag' => [null, 'DELETE', "/shelf/{$bag}", ['reason' => self::REASON], true],
            'delete a bag as a technician' => [null, 'DELETE', "/shelf/{$bag}", ['reason' => self::REASON], false],
            'verify a bag' => [null, 'POST', "/shelf/{$bag}/verify", [], false],
            'drop the package' => [null, 'DELETE', "/packages/{$package}", [], true],
            'keep fewer' => [null, 'PUT', '/keeping', $keeping, true],
            'refresh the almanac' => [null, 'POST', '/almanac/refresh', [], false],
            'take it in again' => [null, 'POST', '/jobs', ['serial' => $job['serial']], false],
        ];
    }
}
