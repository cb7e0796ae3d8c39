<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Models\Setting;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use App\SecondPlace\Copies;
use App\SecondPlace\Places;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Exchange\Fields;
use Tests\Support\SftpServer;

/** The second place on a server: Debian's OpenSSH on loopback, by SFTP. */
final class SftpPlaceTest extends ServerlessTestCase
{
    private const PORT = 8990;

    private SftpServer $server;

    protected function setUp(): void
    {
        parent::setUp();
        $folder = sys_get_temp_dir().'/jade-sftp-'.bin2hex(random_bytes(6));
        $this->server = SftpServer::start($folder, self::PORT);
        config()->set('jade.second_place_addresses', "127.0.0.1:{$this->server->port}");
    }

    protected function tearDown(): void
    {
        $this->server->stop();
        exec('rm -rf '.escapeshellarg($this->server->folder));
        parent::tearDown();
    }

    public function test_a_bag_is_carried_there_and_comes_back_the_same(): void
    {
        $bag = $this->sealed();
        $this->setUpPlace();
        $copy = $this->work($bag);
        self::assertSame([SecondCopyState::There, null], [$copy->state, $copy->problem?->detail]);
        self::assertTrue(BagVerifier::verify("{$this->server->folder}/files/{$bag->id}")->isSound());

        $store = $this->app->make(BagStore::class);
        $store->remove($bag->id);
        $this->app->make(Copies::class)->fetchBack($bag, $this->technician);
        self::assertSame(SecondCopyState::There, $this->work($bag)->state);
        self::assertTrue(BagVerifier::verify($store->folder($bag->id))->isSound());
    }

    public function test_a_server_that_is_silent_is_said_and_carried_to_when_it_answers_again(): void
    {
        $bag = $this->sealed();
        $this->setUpPlace();
        $this->server->stop();
        $copy = $this->work($bag);
        self::assertSame([SecondCopyState::Waiting, 'place-fails'], [$copy->state, $copy->problem?->reason]);
        $this->server->resume();
        self::assertSame(SecondCopyState::There, $this->work($bag)->state);
    }

    public function test_nothing_is_told_to_a_host_that_shows_another_key_or_that_nobody_has_allowed(): void
    {
        $other = 'SHA256:'.rtrim(base64_encode(hash('sha256', 'another', true)), '=');
        self::assertSame(['hostKey', true], $this->refused(['hostKey' => $other]));
        self::assertSame(['hostKey', true], $this->refused(['hostKey' => null]), 'it says which key is shown');
        config()->set('jade.second_place_addresses', '');
        self::assertSame(['host', false], $this->refused([]));
        self::assertNull(Setting::query()->find('second-place'));
    }

    public function test_a_host_that_has_another_key_later_gets_nothing(): void
    {
        $bag = $this->sealed();
        $this->setUpPlace();
        $this->server->stop();
        exec("cd {$this->server->folder} && rm host host.pub && ssh-keygen -q -t ed25519 -N '' -f host");
        $this->server->resume();
        self::assertSame('place-fails', $this->work($bag)->problem?->reason);
        self::assertDirectoryDoesNotExist("{$this->server->folder}/files/{$bag->id}.part");
    }

    public function test_the_secret_is_in_no_row_and_no_answer_in_the_clear(): void
    {
        $this->setUpPlace();
        $secret = trim(explode("\n", $this->server->privateKey())[2]);
        $row = json_encode(Setting::query()->findOrFail('second-place')->value->all(), JSON_THROW_ON_ERROR);
        self::assertStringNotContainsString($secret, $row);
        $told = json_encode($this->app->make(Places::class)->told(true), JSON_THROW_ON_ERROR);
        self::assertStringNotContainsString($secret, $told);
        self::assertStringContainsString('"secretHeld":true', $told);
    }

    /** @param  array<string, mixed>  $other */
    private function setUpPlace(array $other = []): void
    {
        $this->app->make(Places::class)->set(Fields::of($other + [
            'folder' => "{$this->server->folder}/files",
            'host' => '127.0.0.1',
            'port' => $this->server->port,
            'user' => $this->server->user(),
            'hostKey' => $this->server->hostKey(),
            'secret' => $this->server->privateKey(),
            'demanded' => false,
        ]), $this->technician);
    }

    /**
     * @param  array<string, mixed>  $other
     * @return array{string|null, bool} the field that is at fault, and whether the key that the host shows is told
     */
    private function refused(array $other): array
    {
        try {
            $this->setUpPlace($other);
        } catch (Refusal $e) {
            return [$e->field, str_contains($e->getMessage(), $this->server->hostKey())];
        }
        self::fail('It was set up.');
    }

    private function work(Bag $bag): SecondCopy
    {
        SecondCopy::query()->update(['not_before' => null, 'beat_at' => null]);
        $this->app->make(Copies::class)->call();
        $this->app->make(Copies::class)->work($bag->id);

        return SecondCopy::query()->findOrFail($bag->id);
    }

    private function sealed(): Bag
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint', 'photos/a.jpg' => str_repeat('sea', 300_000)]);
        $this->runCalledSteps();

        return BenchJob::query()->findOrFail($job->id)->safetyBag() ?? self::fail('It was not backed up.');
    }
}
