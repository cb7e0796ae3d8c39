<?php

declare(strict_types=1);

namespace Tests\Fault;

use GuzzleHttp\Client;
use Tests\Support\RunningSystem;

/** The hands at the practice rig; asks it until it answers, and starts again what has ended meanwhile. */
final readonly class PatientRig
{
    private const TRIES = 40;

    private Client $http;

    public function __construct(private RunningSystem $system)
    {
        $this->http = new Client(['http_errors' => false, 'timeout' => 60]);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function ask(string $method, string $path, array $body = []): array
    {
        for ($try = 0; ; $try++) {
            try {
                $at = $this->system->settings()['DEVICE_LINK'].$path;
                $told = json_decode(
                    (string) $this->http->request($method, $at, ['json' => (object) $body])->getBody(),
                    true,
                );

                return is_array($told) ? $told : [];
            } catch (\Throwable $e) {
                $try < self::TRIES || throw $e;
                $this->system->revive();
                usleep(250_000);
            }
        }
    }

    /** @param  array<string, mixed>  $body */
    public function hand(string $serial, string $hand, array $body): void
    {
        $this->ask('POST', "/practice/devices/{$serial}/{$hand}", $body);
    }

    public function answer(string $serial, string $answer): void
    {
        $this->hand($serial, 'answers', ['answer' => $answer]);
    }

    public function plug(string $serial, ?string $port): void
    {
        $this->hand($serial, 'port', ['port' => $port]);
    }

    /** @return array<string, mixed>|null as the rig shows it */
    public function device(string $serial): ?array
    {
        return array_column($this->ask('GET', '/practice')['devices'] ?? [], null, 'serial')[$serial] ?? null;
    }

    /** The keys into recovery mode, where the device runs and does nothing else. */
    public function press(string $serial): void
    {
        $device = $this->device($serial);
        $idle = $device !== null && $device['mode'] === 'normal' && $device['operation'] === null;
        foreach ($idle ? $device['keys'] : [] as $key) {
            $this->hand($serial, 'keys', $key);
        }
    }
}
