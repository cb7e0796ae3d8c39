<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Models\AlmanacChange;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\Message;
use App\Models\SecondCopy;
use App\Models\Sending;
use App\Models\SendingState;
use App\Models\Vendor;
use App\Models\VendorKey;
use App\Models\Webhook;
use App\Ports\Exception\NotSent;
use App\Ports\Fake\FakePost;
use App\Ports\Fake\FakeWebhooks;
use App\Ports\Post;
use App\Ports\Webhooks;
use App\Watch\Chosen;
use App\Watch\OwnBackups;
use App\Watch\Sender;
use App\Watch\Watching;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Watch\Alarm;
use Psr\Clock\ClockInterface;

/** What is told, to whom, once; and what could not be told is shown. */
final class WatchingTest extends ServerlessTestCase
{
    private FakePost $post;

    private FakeWebhooks $webhooks;

    private \DateTimeImmutable $now;

    protected function setUp(): void
    {
        parent::setUp();
        $this->post = new FakePost;
        $this->webhooks = new FakeWebhooks;
        $this->app->instance(Post::class, $this->post);
        $this->app->instance(Webhooks::class, $this->webhooks);
        $this->now = new \DateTimeImmutable('now', new \DateTimeZone('UTC'));
        $this->choose(array_column(Alarm::cases(), 'value'));
    }

    public function test_a_hand_that_is_wanted_for_longer_than_was_chosen_is_told_once(): void
    {
        $this->choose(['hand-wanted'], 10);
        $job = $this->waitingJob();
        $this->watch();
        self::assertSame([], $this->post->sent, 'not yet');
        $this->later('+9 minutes');
        $this->watch();
        self::assertSame([], $this->post->sent, 'not yet');
        $this->later('+2 minutes');
        $this->watch();
        $this->watch();
        self::assertCount(1, $this->post->sent);
        [$mail] = $this->post->sent;
        self::assertSame($this->technician->email, $mail['to']);
        self::assertStringStartsWith("Job {$job->id}, ", $mail['subject']);
        self::assertStringContainsString("/#/jobs/{$job->id}/", $mail['text']);
        self::assertStringNotContainsString(self::SERIAL, $mail['subject'].$mail['text'], 'a mail names no device');
    }

    public function test_what_is_over_before_it_was_told_is_not_told_and_what_comes_again_is(): void
    {
        $bag = $this->bag();
        $fault = Fault::of(FaultCode::Altered, 'data/notes/list.md');
        $bag->foundDamaged([$fault]);
        $this->app->make(Watching::class)->watch();
        $bag->update(['state' => 'verified']);
        $this->watch();
        self::assertSame([], $this->post->sent);
        self::assertNotNull(Message::query()->where('alarm', Alarm::BagDamaged)->sole()->ended_at);

        $bag->foundDamaged([$fault]);
        $this->watch();
        self::assertCount(1, $this->post->sent);
        $bag->update(['state' => 'verified']);
        $this->watch();
        $bag->foundDamaged([$fault]);
        $this->watch();
        self::assertCount(2, $this->post->sent, 'it is damaged once more, which is news');
    }

    public function test_each_alarm_has_its_condition_and_says_what_to_do(): void
    {
        $job = $this->waitingJob();
        AlmanacChange::query()->create([
            'vendor' => 'brightmere', 'code' => 'end-announced', 'os_line' => 'Marrow', 'version' => null,
            'build' => null,
            'hardware_ids' => [$job->device?->hardwareId], 'words' => 'The window of 8.7 ends on Friday.',
            'vouched' => true, 'noticed_at' => $this->now,
        ]);
        Vendor::query()->firstOrCreate(['id' => 'brightmere'], ['name' => 'Brightmere', 'refresh_minutes' => 30]);
        VendorKey::query()->create([
            'vendor_id' => 'brightmere', 'kid' => 'k2', 'thumbprint' => str_repeat('a', 43),
            'jwk' => Fields::of(['kty' => 'OKP']), 'state' => 'offered',
        ]);
        $bag = $this->bag(['state' => 'sealed', 'keep_until' => $this->now->modify('+3 days')]);
        $this->bag(['id' => 'b-2'])->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        SecondCopy::query()->create([
            'bag_id' => $bag->id, 'state' => 'waiting', 'tries' => 3, 'problem' => Problem::told(
                'place-full',
                'It is full.',
            ),
        ]);
        $this->app->make(OwnBackups::class)->noteMade();
        $this->later('+72 hours');
        AlmanacChange::query()->update(['noticed_at' => $this->now]);
        $this->watch();

        $job->refresh()->update(['nightly' => true]);
        $this->watch();

        $told = array_unique(
            array_map(static fn (Message $m): string => $m->alarm->value, Message::query()->get()->all()),
        );
        // how full the disk of this machine is, is not the test's to say
        $expected = array_diff(array_column(Alarm::cases(), 'value'), ['disk-fills']);
        self::assertEqualsCanonicalizing($expected, array_diff($told, ['disk-fills']));
        foreach ($this->post->sent as $mail) {
            $alarm = Message::query()->findOrFail((int) explode('.', $mail['id'])[1])->alarm;
            self::assertStringContainsString($alarm->remedy(), $mail['text']);
        }
    }

    public function test_what_cannot_be_sent_is_tried_again_then_given_up_and_shown(): void
    {
        $this->post->fails = new NotSent('The mail server did not take it: 451 later');
        $this->bag()->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        for ($try = 0; $try < 7; $try++) {
            $this->watch();
            $this->later('+61 minutes');
        }
        $sending = Sending::query()->sole();
        self::assertSame([SendingState::Failed, 6], [$sending->state, $sending->tries]);
        self::assertSame('The mail server did not take it: 451 later', $sending->problem);
    }

    public function test_what_may_have_gone_out_is_not_sent_again(): void
    {
        $this->post->fails = new NotSent('Cut after the last line.', true);
        $this->bag()->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        $this->watch();
        $this->post->fails = null;
        $this->later('+2 hours');
        $this->watch();
        self::assertSame([[], SendingState::Unknown], [$this->post->sent, Sending::query()->sole()->state]);

        // and where whoever sent it was killed
        Sending::query()->update(['state' => 'going', 'claimed_at' => $this->now->modify('-10 minutes')]);
        $this->watch();
        self::assertSame([[], SendingState::Unknown], [$this->post->sent, Sending::query()->sole()->state]);
    }

    public function test_a_webhook_is_told_of_what_it_is_set_up_for_and_nobody_of_what_they_did_not_choose(): void
    {
        $this->choose([]);
        Webhook::query()->create([
            'name' => 'Pager', 'address' => 'https://pager.example/in', 'secret' => 's',
            'alarms' => [Alarm::BagDamaged],
            'made_by' => 'Maren',
        ]);
        $bag = $this->bag();
        $bag->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        $this->waitingJob();
        $this->later('+1 day');
        $this->watch();
        self::assertSame([], $this->post->sent);
        self::assertSame(
            ['bag-damaged'],
            array_map(static fn (array $s): mixed => $s['body']['type'], $this->webhooks->sent),
        );
        self::assertStringEndsWith("/#/shelf/{$bag->id}", $this->webhooks->sent[0]['body']['data']['page'] ?? '');
    }

    /** @param  list<string>  $alarms */
    private function choose(array $alarms, int $minutes = 10): void
    {
        Chosen::ofFields(Fields::of(['byMail' => $alarms, 'handMinutes' => $minutes, 'inBrowser' => false]))
            ->keep($this->technician->refresh());
    }

    private function waitingJob(): BenchJob
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope']);
        $this->runCalledSteps();

        return $job->refresh();
    }

    /** @param  array<string, mixed>  $other */
    private function bag(array $other = []): Bag
    {
        return Bag::query()->create($other + [
            'id' => 'b-1', 'serial' => 'SKL-0099', 'state' => 'verified', 'label' => 'Old one',
            'taken_at' => $this->now,
            'made_on' => '9.3.0', 'declared_version' => '9.3.0', 'faults' => [], 'kinds' => [],
        ]);
    }

    private function later(string $by): void
    {
        $this->now = $this->now->modify($by);
        $this->app->instance(ClockInterface::class, new class($this->now) implements ClockInterface
        {
            public function __construct(private readonly \DateTimeImmutable $now)
            {
            }

            public function now(): \DateTimeImmutable
            {
                return $this->now;
            }
        });
    }

    private function watch(): void
    {
        $this->app->make(Watching::class)->watch();
        $this->app->make(Sender::class)->sendDue();
    }
}
