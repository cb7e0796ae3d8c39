<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Kernel;
use Standins\Http\Problem;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\RouteCollection;

/**
 * What hands do to devices: plug them in and out, press keys, answer what they ask, and make things go wrong. A real
 * link has none of this.
 */
final readonly class PracticeHands
{
    private const PORTS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10'];

    public function __construct(private Cabinet $cabinet, private RigClock $clock)
    {
    }

    public function addTo(RouteCollection $routes): void
    {
        Kernel::route(
            $routes,
            'GET',
            '/practice',
            fn (): array => [
                'speed' => $this->clock->speed,
                'ports' => self::PORTS,
                'faultKinds' => Faults::kinds(),
                'phases' => array_map(array_keys(...), Timeline::PHASES),
                'devices' => array_map(
                    fn (string $serial): array => $this->cabinet->with($serial, self::shown(...), true),
                    $this->cabinet->serials(),
                ),
            ],
        );
        Kernel::route($routes, 'PUT', '/practice/speed', function (Request $r): array {
            $speed = Kernel::body($r)['speed'] ?? null;
            (is_numeric($speed) && $speed >= 0.1 && $speed <= 1000)
                || throw new Problem(400, 'bad-field', 'The speed is a number from 0.1 to 1000; 1 is the usual one.');

            return ['speed' => $this->clock->runAt((float) $speed)->speed];
        });
        Kernel::route($routes, 'POST', '/practice/devices/{serial}/reset', function (Request $r, array $m): array {
            $this->cabinet->reset($m['serial'], (Kernel::body($r)['small'] ?? false) === true);

            return ['reset' => true];
        });
        Kernel::route(
            $routes,
            'POST',
            '/practice/devices/{serial}/port',
            fn (Request $r, array $m): array => $this->plug($m['serial'], Kernel::body($r)['port'] ?? null),
        );
        $hand = fn (string $method, string $path, callable $do) => Kernel::route(
            $routes,
            $method,
            "/practice/devices/{serial}/{$path}",
            fn (Request $r, array $m): array => $this->cabinet->with(
                $m['serial'],
                static function (Handset $h) use ($do, $r): array {
                    $do($h, $r);

                    return self::shown($h);
                }, true));
        $hand('POST', 'keys', static fn (Handset $h, Request $r) => $h->hands()->keys(Kernel::body($r)));
        $hand(
            'POST',
            'answers',
            static fn (Handset $h, Request $r) => $h->hands()->answer(Kernel::text(Kernel::body($r), 'answer')),
        );
        $hand('POST', 'faults', static fn (Handset $h, Request $r) => $h->hands()->fault(Kernel::body($r)));
        $hand('DELETE', 'faults', static fn (Handset $h, Request $r) => $h->hands()->withoutFaults());
        Kernel::route(
            $routes,
            'POST',
            '/practice/devices/{serial}/old-backup',
            fn (Request $r, array $m): Response => $this->cabinet->with(
                $m['serial'],
                static fn (Handset $h): Response => OldBackup::of($h, Kernel::body($r)),
                true,
            ),
        );
        $hand('POST', 'state', static function (Handset $h, Request $r): void {
            $settable = ['batteryPercent', 'charging', 'ownerLock', 'lockDelay', 'lockDelayEndsAt', 'betaEnrolled'];
            $h->state = array_intersect_key(Kernel::body($r), array_flip($settable)) + $h->state;
        });
    }

    /** @return array<string, mixed> */
    private function plug(string $serial, mixed $port): array
    {
        if ($port !== null) {
            in_array($port, self::PORTS, true)
                || throw new Problem(400, 'bad-field', 'The rig has the ports '.implode(', ', self::PORTS).'.');
            $there = array_diff($this->cabinet->on($port), [$serial]);
            $there === []
                || throw new Problem(
                    409,
                    'port-taken',
                    "On port {$port} there is ".implode($there).'; unplug that first.',
                );
        }

        return $this->cabinet->with($serial, static function (Handset $h) use ($port): array {
            $port === null ? $h->hands()->unplug() : $h->hands()->plugInto($port);

            return self::shown($h);
        }, true);
    }

    /** @return array<string, mixed> */
    private static function shown(Handset $h): array
    {
        $s = $h->state;
        $running = array_filter(
            array_keys($s['operations']),
            static fn (int|string $id): bool => $s['operations'][$id]['state'] === 'running',
        );
        $kept = [
            'serial',
            'modelName',
            'boxLabel',
            'note',
            'port',
            'version',
            'build',
            'mode',
            'hidden',
            'bootable',
            'paired',
            'batteryPercent',
            'charging',
            'ownerLock',
            'lockDelay',
            'lockDelayEndsAt',
            'activated',
            'setUp',
            'betaEnrolled',
            'cloudBackup',
            'syncLate',
            'keys',
            'keysDone',
            'heard',
            'faults',
            'fired',
            'writes',
        ];

        return array_intersect_key($s, array_flip($kept)) + [
            'operation' => $running === [] ? null : $h->works()->operation((string) reset($running)),
            'asks' => $s['ownerLock'] === 'on' && ! $s['activated'] && ! $s['ownerEntered'] && $s['mode'] === 'normal'
                    ? 'owner-account'
                    : ($running === []
                        ? null
                        : $h->works()->operation((string) reset($running))['wants']),
        ];
    }
}
