<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Jose;
use Standins\Http\Kernel;
use Standins\Http\Problem;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Routing\RouteCollection;

/** The device link over HTTP, as docs/device-link.md lays it down. */
final readonly class Service
{
    private const SECONDS_PER_ITEM = 0.04;

    private const BYTES_PER_SECOND = 1_000_000;

    private const PACKAGE_BYTES_PER_SECOND = 2_500_000;

    public function __construct(
        private Cabinet $cabinet,
        private string $folder,
        private string $vendorAddress,
        private RigClock $clock,
    ) {
    }

    public static function fromEnvironment(): self
    {
        $folder = (getenv('JADE_VAR') ?: dirname(__DIR__, 3).'/var').'/rig';
        $clock = RigClock::in($folder, (float) (getenv('RIG_SPEED') ?: 1));

        return new self(
            new Cabinet("{$folder}/devices", $clock, new Album(getenv('RIG_ALBUM') ?: "{$folder}/album")),
            $folder,
            getenv('VENDOR_ADDRESS') ?: 'http://127.0.0.1:8931',
            $clock,
        );
    }

    public function routes(): RouteCollection
    {
        $routes = new RouteCollection;
        $device = fn (callable $do): callable => fn (Request $r, array $m): array => $this->cabinet->with(
            $m['serial'],
            static fn (Handset $h): array => $do($h, $r, $m),
        );

        Kernel::route($routes, 'GET', '/ports', fn (): array => ['ports' => $this->ports(), 'near' => $this->near()]);
        Kernel::route($routes, 'GET', '/devices/{serial}', $device(static fn (Handset $h): array => $h->reading()));
        Kernel::route(
            $routes,
            'GET',
            '/devices/{serial}/content',
            fn (Request $r, array $m): Response => $this->listing($m['serial'], self::encrypted($r)),
        );
        Kernel::route(
            $routes,
            'GET',
            '/devices/{serial}/content/{kind}/{path}',
            fn (Request $r, array $m): Response => $this->item($m, self::encrypted($r)),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/content/batch',
            fn (Request $r, array $m): Response => $this->items($m['serial'], Kernel::body($r), self::encrypted($r)),
        );
        Kernel::route(
            $routes,
            'PUT',
            '/devices/{serial}/content/{kind}/{path}',
            fn (Request $r, array $m): array => $this->takeIn($r, $m),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/operations',
            $device(static fn (Handset $h, Request $r): array => $h->start(Kernel::text(Kernel::body($r), 'kind'))),
        );
        Kernel::route(
            $routes,
            'GET',
            '/devices/{serial}/operations/{id}',
            $device(static fn (Handset $h, Request $r, array $m): array => $h->works()->operation($m['id'])),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/nonce',
            $device(static fn (Handset $h): array => ['nonce' => $h->nonce()]),
        );
        Kernel::route(
            $routes,
            'GET',
            '/devices/{serial}/packages/{sha256}',
            fn (Request $r, array $m): array => $this->received($m),
        );
        Kernel::route(
            $routes,
            'PUT',
            '/devices/{serial}/packages/{sha256}',
            fn (Request $r, array $m): array => $this->receive($r, $m),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/installs',
            $device(function (Handset $h, Request $r): array {
                $body = Kernel::body($r);

                return $h->install(
                    Kernel::text($body, 'permit'),
                    $this->cabinet->packageFile($h->state['serial'], Kernel::text($body, 'packageSha256')),
                    ($body['keepData'] ?? false) === true,
                    $this->vendorKeys($h->state['vendor']),
                );
            }),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/returns',
            $device(static fn (Handset $h, Request $r): array => ['return' => $h->offerReturn(Kernel::body($r))]),
        );
        Kernel::route($routes, 'GET', '/devices/{serial}/returns/{return}', $device($this->staged(...)));
        Kernel::route(
            $routes,
            'PUT',
            '/devices/{serial}/returns/{return}/content/{kind}/{path}',
            fn (Request $r, array $m): array => $this->stage($r, $m),
        );
        Kernel::route(
            $routes,
            'POST',
            '/devices/{serial}/returns/{return}/commit',
            $device(static fn (Handset $h, Request $r, array $m): array => $h->commitReturn($m['return'])),
        );
        (new PracticeHands($this->cabinet, $this->clock))->addTo($routes);

        return $routes;
    }

    /** @return list<array<string, mixed>> */
    private function ports(): array
    {
        $ports = [];
        foreach ($this->cabinet->serials() as $serial) {
            $state = $this->stateOf($serial);
            if ($state !== null && $state['port'] !== null) {
                $seen = $state['mode'] !== 'restarting' && ! $state['hidden'];
                $ports[] = [
                    'port' => $state['port'],
                    'device' => $seen
                        ? [
                            'serial' => $serial,
                            'mode' => $state['mode'],
                            'modelName' => $state['modelName'],
                            'version' => $state['version'],
                            'paired' => $state['paired'],
                            'keysHeard' => Keys::heard($state, $this->clock->now()),
                        ]
                        : null,
                ];
            }
        }
        usort($ports, static fn (array $a, array $b): int => strnatcmp($a['port'], $b['port']));

        return $ports;
    }

    /** @return array<string, mixed>|null null where it is being delivered anew at this moment */
    private function stateOf(string $serial): ?array
    {
        try {
            return $this->cabinet->with($serial, static fn (Handset $h): array => $h->state, true);
        } catch (Problem) {
            return null;
        }
    }

    /** @return list<array<string, mixed>> devices in no port that are reached by air */
    private function near(): array
    {
        $near = [];
        foreach ($this->cabinet->serials() as $serial) {
            $state = $this->stateOf($serial);
            $isNear = $state !== null && $state['air'] && $state['port'] === null;
            if ($isNear && $state['mode'] !== 'restarting' && ! $state['hidden']) {
                $near[] = [
                    'serial' => $serial,
                    'mode' => $state['mode'],
                    'modelName' => $state['modelName'],
                    'version' => $state['version'],
                    'paired' => $state['paired'],
                ];
            }
        }

        return $near;
    }

    /** A device hands some kinds out only into a backup that will be encrypted. */
    private static function encrypted(Request $request): bool
    {
        return $request->query->get('backup') === 'encrypted';
    }

    private function listing(string $serial, bool $encrypted): Response
    {
        $lines = $this->cabinet->with(
            $serial,
            static fn (Handset $h): array => iterator_to_array($h->listing($encrypted), false),
        );

        return new Response(implode("\n", $lines)."\n", 200, ['Content-Type' => 'application/jsonl']);
    }

    /** @param  array<string, string>  $m */
    private function item(array $m, bool $encrypted): Response
    {
        $file = $this->cabinet->with(
            $m['serial'],
            static fn (Handset $h): string => $h->item($m['kind'], $m['path'], $encrypted),
        );
        $this->pace((int) filesize($file));

        return new StreamedResponse(static function () use ($file): void {
            readfile($file);
        }, 200, ['Content-Type' => 'application/octet-stream', 'Content-Length' => (string) filesize($file)]);
    }

    /**
     * Each with a line that says which it is and how large, or why it is not handed out.
     *
     * @param  array<string, mixed>  $asked
     */
    private function items(string $serial, array $asked, bool $encrypted): Response
    {
        $wanted = is_array($asked['items'] ?? null) ? $asked['items'] : [];
        $this->cabinet->with($serial, static fn (Handset $h) => $h->wantPaired());

        return new StreamedResponse(function () use ($serial, $wanted, $encrypted): void {
            foreach ($wanted as $one) {
                $name = ['kind' => Kernel::text($one, 'kind'), 'path' => Kernel::text($one, 'path')];
                try {
                    $file = $this->cabinet->with(
                        $serial,
                        static fn (Handset $h): string => $h->item($name['kind'], $name['path'], $encrypted),
                    );
                    $bytes = (string) file_get_contents($file);
                    $this->pace(strlen($bytes));
                    echo json_encode($name + ['bytes' => strlen($bytes)], JSON_UNESCAPED_UNICODE)."\n{$bytes}";
                } catch (Problem $no) {
                    echo json_encode($name + ['code' => $no->reason, 'detail' => $no->getMessage()])."\n";
                }
                flush();
            }
        }, 200, ['Content-Type' => 'application/octet-stream']);
    }

    /**
     * @param  array<string, string>  $m
     * @return array<string, int>
     */
    private function received(array $m): array
    {
        return ['received' => (int) @filesize($this->cabinet->packageFile($m['serial'], $m['sha256']))];
    }

    /**
     * @param  array<string, string>  $m
     * @return array<string, int>
     */
    private function receive(Request $request, array $m): array
    {
        $flips = $this->cabinet->with($m['serial'], static function (Handset $h): bool {
            $h->state['mode'] === 'recovery'
                || throw new Problem(409, 'not-in-recovery-mode', 'The device takes packages in recovery mode only.');
            $h->hands()->takeFault('disk-full') === null
                || throw new Problem(409, 'disk-full', 'The device has no room for the package.');

            return $h->hands()->takeFault('package-flipped') !== null;
        });
        $bytes = $request->getContent();
        $file =
            fopen($this->cabinet->packageFile($m['serial'], $m['sha256']), 'c+b')
            ?: throw new Problem(500, 'disk-full', 'The device has no room for the package.');
        $offset = max(0, $request->query->getInt('offset'));
        $offset === 0 ? ftruncate($file, 0) : fseek($file, $offset);
        fwrite($file, $bytes);
        fclose($file);
        $flips ? BagHand::flipFirstBit($this->cabinet->packageFile($m['serial'], $m['sha256'])) : null;
        usleep((int) (strlen($bytes) / (self::PACKAGE_BYTES_PER_SECOND * $this->clock->speed) * 1_000_000));
        clearstatcache();

        return $this->received($m);
    }

    /**
     * @param  array<string, string>  $m
     * @return array<string, list<string>>
     */
    private function staged(Handset $handset, Request $request, array $m): array
    {
        $storage = $handset->staging($m['return']);
        $items = [];
        foreach ($storage->kinds() as $kind) {
            foreach ($storage->files($kind) as $path => $file) {
                $items[] = "{$kind}/{$path}";
            }
        }

        return ['items' => $items];
    }

    /**
     * @param  array<string, string>  $m
     * @return array<string, bool>
     */
    private function stage(Request $request, array $m): array
    {
        $content = $request->getContent();
        $this->pace(strlen($content));
        $modified = strtotime((string) $request->headers->get('X-Modified-At')) ?: time();
        $storage = $this->cabinet->with($m['serial'], static fn (Handset $h): Storage => $h->staging($m['return']));
        $storage->write($m['kind'], $m['path'], $content, $modified);

        return ['received' => true];
    }

    /**
     * @param  array<string, string>  $m
     * @return array<string, bool>
     */
    private function takeIn(Request $request, array $m): array
    {
        $content = $request->getContent();
        $this->pace(strlen($content));
        $modified = strtotime((string) $request->headers->get('X-Modified-At')) ?: time();
        $this->cabinet->with(
            $m['serial'],
            static fn (Handset $h) => $h->takesIn($m['kind'])->write($m['kind'], $m['path'], $content, $modified),
        );

        return ['received' => true];
    }

    private function pace(int $bytes): void
    {
        usleep((int) ((self::SECONDS_PER_ITEM + $bytes / self::BYTES_PER_SECOND) / $this->clock->speed * 1_000_000));
    }

    /**
     * The vendor's keys are burned into a device when it is made: read once, then kept.
     *
     * @return array<string, string>
     */
    private function vendorKeys(string $vendor): array
    {
        $file = "{$this->folder}/{$vendor}-keys.json";
        if (! is_file($file)) {
            $text = @file_get_contents("{$this->vendorAddress}/{$vendor}/jwks.json");
            $text === false && throw new Problem(503, 'vendor-silent', 'The vendor\'s keys could not be read.');
            file_put_contents($file, $text);
        }
        $keys = [];
        foreach (json_decode((string) file_get_contents($file), true, 8, JSON_THROW_ON_ERROR)['keys'] as $jwk) {
            $keys[$jwk['kid']] = Jose::decode($jwk['x']);
        }

        return $keys;
    }
}
