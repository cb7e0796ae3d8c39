<?php

declare(strict_types=1);

namespace Standins\Rig;

use Standins\Http\Problem;

/** Where the simulated devices are kept between two requests: a folder a device, one request at a time on each. */
final readonly class Cabinet
{
    private const KEPT_OPERATIONS = 20;

    public function __construct(private string $folder, private RigClock $clock, private Album $album)
    {
    }

    /** @return list<string> */
    public function serials(): array
    {
        $this->provision();
        $serials = array_map(basename(...), glob("{$this->folder}/*", GLOB_ONLYDIR) ?: []);

        return array_values(array_filter($serials, fn (string $s): bool => is_file("{$this->folder}/{$s}/state.json")));
    }

    /**
     * @template T
     *
     * @param  callable(Handset): T  $use
     * @param  bool  $evenUnplugged  for a practice hand, which reaches a device without its cable
     * @return T
     */
    public function with(string $serial, callable $use, bool $evenUnplugged = false): mixed
    {
        in_array($serial, $this->serials(), true)
            || throw new Problem(404, 'no-such-device', 'No such device is plugged in.');
        $folder = "{$this->folder}/{$serial}";
        $lock = self::lock("{$folder}/.lock");
        try {
            $state = json_decode((string) file_get_contents("{$folder}/state.json"), true, 32, JSON_THROW_ON_ERROR);
            $handset = new Handset($state, $folder, $this->clock->now(), time(), $this->clock->speed);
            try {
                $handset->catchUp();
                $evenUnplugged
                    || self::answers($handset)
                    || throw new Problem(404, 'no-such-device', 'No such device is plugged in.');
                $evenUnplugged
                    || ! $handset->hands()->linkIsAway()
                    || throw new Problem(503, 'link-away', 'The link is away for a moment.');

                return $use($handset);
            } finally {
                $handset->state === $state || $this->save($folder, $handset);
            }
        } finally {
            fclose($lock);
        }
    }

    private static function answers(Handset $handset): bool
    {
        return ($handset->state['port'] !== null || $handset->state['air']) && ! $handset->state['hidden'];
    }

    public function packageFile(string $serial, string $sha256): string
    {
        preg_match('/\A[0-9a-f]{64}\z/', $sha256) === 1
            || throw new Problem(400, 'bad-field', 'A package is named by its SHA-256.');

        return "{$this->folder}/{$serial}/package-{$sha256}";
    }

    /**
     * Sets a device back to how it was delivered.
     *
     * @param  bool  $small  with little of each kind
     */
    public function reset(string $serial, bool $small = false): void
    {
        $device =
            Scenario::devices()[$serial] ?? throw new Problem(404, 'no-such-device', 'The rig has no such device.');
        $this->provision();
        $lock = self::lock("{$this->folder}/.lock");
        Storage::remove("{$this->folder}/{$serial}");
        $this->deliver($device, $small);
        fclose($lock);
    }

    /** @return list<string> the serials of what is plugged into a port */
    public function on(string $port): array
    {
        return array_values(
            array_filter(
                $this->serials(),
                fn (string $s): bool => $this->with(
                    $s,
                    static fn (Handset $h): bool => $h->state['port'] === $port,
                    true,
                ),
            ),
        );
    }

    private function provision(): void
    {
        if (is_file("{$this->folder}/.ready")) {
            return;
        }
        is_dir($this->folder) || mkdir($this->folder, 0o755, true);
        $lock = self::lock("{$this->folder}/.lock");
        if (! is_file("{$this->folder}/.ready")) {
            array_map(fn (array $d) => $this->deliver($d, false), Scenario::devices());
            touch("{$this->folder}/.ready");
        }
        fclose($lock);
    }

    /** @param  array<string, mixed>  $device */
    private function deliver(array $device, bool $small): void
    {
        $folder = "{$this->folder}/{$device['serial']}";
        Storage::remove($folder);
        mkdir($folder, 0o755, true);
        DemoContent::make(
            $this->album,
            "{$folder}/content",
            $device['serial'],
            $small ? 3 : $device['photoCount'],
            time(),
            $small ? 0.08 : 1.0,
        );
        $content = new Storage("{$folder}/content");
        $content->write(
            'home-layout',
            'layout.json',
            json_encode(self::layout(array_column($device['apps'], 'id')), JSON_THROW_ON_ERROR),
            time() - 30 * 86_400,
        );
        $device['cloudBackup'] = self::cloudBackup($folder, $content, $device['cloudBackup']);
        foreach ($device['accessories'] as $accessory) {
            $content->write(
                'accessory-pairing',
                "{$accessory['id']}.bin",
                hash('sha256', $accessory['id'], true),
                time() - 86_400,
            );
        }
        $content->write(
            'settings',
            'system/about.json',
            json_encode(['version' => $device['version'], 'build' => $device['build']], JSON_THROW_ON_ERROR),
            time(),
        );
        file_put_contents("{$folder}/state.json", json_encode($device, JSON_THROW_ON_ERROR));
    }

    /**
     * What its holder has put where: a dock, and pages with folders.
     *
     * @param  list<string>  $apps
     * @return array{dock: list<string>, pages: list<list<string|array{folder: string, apps: list<string>}>>}
     */
    private static function layout(array $apps): array
    {
        return [
            'dock' => ['phone', 'messages', ...array_slice($apps, 0, 1)],
            'pages' => [
                ['camera', 'calendar', ['folder' => 'Deck', 'apps' => [...array_slice($apps, 1), 'notes']], 'clock'],
                ['photos', 'recorder'],
            ],
        ];
    }

    /**
     * What the owner's cloud has held since before the upgrade: what was there so many days ago.
     *
     * @param  array{daysAgo: int, madeOn: string, kinds: list<string>, share?: float}|null  $about  of which the cloud
     *   has room for a share
     * @return array{takenAt: string, madeOn: string, kinds: list<string>}|null
     */
    private static function cloudBackup(string $folder, Storage $content, ?array $about): ?array
    {
        if ($about === null) {
            return null;
        }
        $at = time() - $about['daysAgo'] * 86_400;
        $cloud = new Storage("{$folder}/cloud-backup");
        foreach ($about['kinds'] as $kind) {
            $files = $content->files($kind);
            foreach (array_slice($files, 0, (int) ceil(count($files) * ($about['share'] ?? 1.0))) as $path => $file) {
                $file->getMTime() <= $at
                    ? $cloud->write(
                        $kind,
                        (string) $path,
                        (string) file_get_contents($file->getPathname()),
                        $file->getMTime(),
                    )
                    : null;
            }
        }

        return ['takenAt' => (string) Handset::time($at), 'madeOn' => $about['madeOn'], 'kinds' => $about['kinds']];
    }

    private function save(string $folder, Handset $handset): void
    {
        $handset->state['operations'] = array_slice($handset->state['operations'], -self::KEPT_OPERATIONS, null, true);
        file_put_contents(
            "{$folder}/state.json.new",
            json_encode($handset->state, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION),
        );
        rename("{$folder}/state.json.new", "{$folder}/state.json");
    }

    /** @return resource */
    private static function lock(string $file)
    {
        $lock = fopen($file, 'c') ?: throw new \RuntimeException('The rig\'s folder is not writable.');
        flock($lock, LOCK_EX);

        return $lock;
    }
}
