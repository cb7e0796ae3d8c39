<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Standins\Http\Kernel;
use Standins\Http\Problem;
use Standins\Rig\RigClock;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\RouteCollection;

/** The service of one vendor: keys, signed catalogue, packages and permits. */
final readonly class Service
{
    private const PERMIT_SECONDS = 600;

    private const FRESH_HOURS = 12;

    private const PACKAGE_BYTES_PER_SECOND = 2_000_000;

    private function __construct(
        private string $id,
        private Scenario $scenario,
        private Vault $vault,
        private PackageMill $mill,
        private Practice $practice,
        private RigClock $clock,
    ) {
    }

    /** The routes of every vendor, each under its id. */
    public static function routesFromEnvironment(): RouteCollection
    {
        $root = (getenv('JADE_VAR') ?: dirname(__DIR__, 3).'/var').'/vendor';
        $clock = RigClock::in(dirname($root).'/rig', (float) (getenv('RIG_SPEED') ?: 1));
        $packages = getenv('VENDOR_PACKAGES') ?: null;
        $share = (float) (getenv('VENDOR_PACKAGE_SHARE') ?: 1);
        $routes = new RouteCollection;
        foreach (Scenario::all() as $id => $scenario) {
            $vault = Vault::in("{$root}/{$id}");
            (new self(
                $id,
                new $scenario($vault->setUpAt),
                $vault,
                new PackageMill($packages === null ? "{$root}/{$id}/packages" : "{$packages}/{$id}", $share),
                new Practice("{$root}/{$id}/practice.json"),
                $clock,
            ))->addTo($routes);
        }

        return $routes;
    }

    private function addTo(RouteCollection $routes): void
    {
        $route = fn (string $method, string $path, callable $do) => Kernel::route(
            $routes,
            $method,
            "/{$this->id}{$path}",
            function (Request $r, array $m) use ($do): Response|array {
                $this->practice->holdUp();
                $this->practice->isBroken() && throw new Problem(500, 'broken', 'The service has a fault of its own.');

                return $do($r, $m);
            });
        $route('GET', '/jwks.json', fn (): array => ['keys' => $this->vault->jwks()]);
        $route('GET', '/catalogue', fn (Request $r): Response => $this->signedCatalogue($r));
        $route('GET', '/packages/{file}', fn (Request $r, array $m): Response => $this->package($m['file'], $r));
        $route('POST', '/permits', fn (Request $r): array => $this->permit(Kernel::body($r), $r));
        Kernel::route(
            $routes,
            'GET',
            "/{$this->id}/practice",
            fn (): array => $this->practice->shown() + [
                'builds' => array_map(
                    static fn (array $b): array => array_intersect_key($b['build'], ['version' => 1, 'build' => 1]),
                    $this->scenario->builds(),
                ),
            ],
        );
        Kernel::route($routes, 'POST', "/{$this->id}/practice", function (Request $r): array {
            $this->practice->set(Kernel::body($r));

            return ['set' => true];
        });
        Kernel::route($routes, 'DELETE', "/{$this->id}/practice", function (): array {
            $this->practice->clear();

            return ['cleared' => true];
        });
        Kernel::route($routes, 'POST', "/{$this->id}/practice/keys", function (): array {
            $this->vault->addKey();

            return ['added' => true];
        });
    }

    private function signedCatalogue(Request $request): Response
    {
        $json = json_encode(
            $this->catalogue($request->getSchemeAndHttpHost()),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES,
        );

        return new Response($this->vault->signCatalogue($json), 200, ['Content-Type' => 'application/jose']);
    }

    /** @return array<string, mixed> */
    private function catalogue(string $address): array
    {
        $issuedAt = $this->practice->issuedAt(new \DateTimeImmutable('now', new \DateTimeZone('UTC')));

        return [
            'format' => 'jade-step/catalogue', 'formatVersion' => 1,
            'vendor' => ['id' => $this->id, 'name' => $this->scenario->name()],
            'issuedAt' => $issuedAt->format('Y-m-d\TH:i:s\Z'),
            'freshUntil' => $issuedAt
                ->modify('+'.$this->practice->freshSeconds(self::FRESH_HOURS * 3600).' seconds')
                ->format('Y-m-d\TH:i:s\Z'),
            'models' => $this->scenario->models(),
            'builds' => array_map(
                fn (array $entry): array => $this->build($entry, $address),
                [...$this->practice->appliedTo($this->scenario->builds()), ...$this->scenario->past()],
            ),
            'accessories' => $this->scenario->accessories(),
        ];
    }

    /**
     * @param  array{build: array<string, mixed>, packages: list<array{hardwareIds: list<string>, mebibytes: int,
     *   signing: list<array<string, mixed>>}>}  $entry
     * @return array<string, mixed>
     */
    private function build(array $entry, string $address): array
    {
        $packages = [];
        foreach ($entry['packages'] as $p) {
            $name =
                strtolower(explode('-', $p['hardwareIds'][0])[0])
                .'_'
                .$entry['build']['version']
                .'_'
                .$entry['build']['build']
                .'.fwp';
            $made = $this->mill->package(
                $name,
                ['hardwareIds' => $p['hardwareIds']] + $entry['build'],
                $p['mebibytes'],
            );
            $packages[] = ['hardwareIds' => $p['hardwareIds']]
                + $made + ['url' => "{$address}/{$this->id}/packages/{$name}", 'signing' => $p['signing']];
        }

        return $entry['build'] + ['packages' => $packages];
    }

    /** Answers byte ranges (RFC 9110 section 14) and an ETag, at the speed of a usual line. */
    private function package(string $name, Request $request): Response
    {
        $file =
            $this->mill->file($name) ?? throw new Problem(404, 'no-such-package', 'There is no package of this name.');
        if (
            preg_match('/\Abytes=(\d+)-/', (string) $request->headers->get('Range'), $m) === 1
            && (int) $m[1] >= filesize($file)
        ) {
            return new Response('', 416, ['Content-Range' => 'bytes */'.filesize($file)]);
        }
        $response = new BinaryFileResponse($file, 200, ['Content-Type' => 'application/octet-stream']);
        $response->setEtag($this->mill->sha256($name));
        $response->isNotModified($request);

        $wrong = $this->practice->download();

        return PacedFile::of(
            $response,
            (int) ((self::PACKAGE_BYTES_PER_SECOND * $this->clock->speed) / $wrong['slowFactor']),
            $wrong['cutAfterBytes'],
            $wrong['alter'],
        );
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, string>
     */
    private function permit(array $body, Request $request): array
    {
        $asked = [];
        foreach (['deviceSerial', 'hardwareId', 'build', 'packageSha256', 'nonce'] as $field) {
            $asked[$field] = Kernel::text($body, $field);
        }
        $this->assertSigned($asked, $this->catalogue($request->getSchemeAndHttpHost()));
        $now = time();
        $claims =
            ['sub' => $asked['deviceSerial'], 'iat' => $now, 'exp' => $now + self::PERMIT_SECONDS]
            + array_diff_key($asked, ['deviceSerial' => 1]);

        return ['permit' => $this->vault->signPermit(json_encode($claims, JSON_THROW_ON_ERROR))];
    }

    /**
     * @param  array<string, string>  $asked
     * @param  array<string, mixed>  $catalogue
     */
    private function assertSigned(array $asked, array $catalogue): void
    {
        foreach ($catalogue['builds'] as $build) {
            foreach ($build['packages'] as $package) {
                if ($build['build'] === $asked['build'] && $package['sha256'] === $asked['packageSha256']) {
                    in_array($asked['hardwareId'], $package['hardwareIds'], true)
                        || throw new Problem(403, 'wrong-model', 'This package is not for that hardware id.');
                    $this->isOpen($package['signing']) && ! $this->practice->isRefused($asked['build'])
                        || throw new Problem(403, 'window-closed', 'This build is not signed any more.');

                    return;
                }
            }
        }
        throw new Problem(403, 'unknown-package', 'No build has a package with this digest.');
    }

    /** @param  list<array{from: string, until: ?string, announced: bool}>  $windows */
    private function isOpen(array $windows): bool
    {
        foreach ($windows as $w) {
            if (strtotime($w['from']) <= time() && ($w['until'] === null || strtotime($w['until']) > time())) {
                return true;
            }
        }

        return false;
    }
}
