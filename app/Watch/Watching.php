<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Message;
use App\Models\Sending;
use App\Models\SendingState;
use App\Models\User;
use App\Models\Webhook;
use App\Rounds\Round;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Watch\Alarm;
use Psr\Clock\ClockInterface;

/**
 * Keeps one message for each thing that holds, from when it begins to when it is over, and has it sent once to whoever
 * has chosen to be told. Runs in the workers, in one of them at a time.
 */
final readonly class Watching implements Round
{
    private const EVERY_SECONDS = 20;

    private const KEPT_DAYS = 90;

    public function __construct(
        private Conditions $conditions,
        private Repository $cache,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return self::EVERY_SECONDS;
    }

    public function look(): void
    {
        if ($this->cache->add('watching', true, self::EVERY_SECONDS - 1)) {
            $this->watch();
        }
    }

    public function watch(): void
    {
        $holding = [];
        foreach ($this->conditions->now() as $condition) {
            $holding[$condition->key()] = $condition;
        }
        $open = Message::query()->whereNotNull('open_key')->get()->keyBy('open_key');
        foreach ($open->diffKeys($holding) as $over) {
            $over->update(['open_key' => null, 'ended_at' => $this->clock->now()]);
            $this->callBack($over);
        }
        foreach (array_diff_key($holding, $open->all()) as $key => $condition) {
            $this->raise($key, $condition);
        }
        $this->addressAll();
        $this->forgetOld();
    }

    private function raise(string $key, Condition $condition): void
    {
        Message::query()->insertOrIgnore([
            'alarm' => $condition->alarm->value,
            'open_key' => $key,
            'subject' => mb_substr($condition->subject, 0, 300),
            'detail' => mb_substr($condition->detail, 0, 2000),
            'path' => mb_substr($condition->path, 0, 200),
            'raised_at' => $condition->since ?? $this->clock->now(),
        ]);
    }

    /** What is over before it went out need not be told any more. */
    private function callBack(Message $over): void
    {
        Sending::query()->where('message_id', $over->id)->where(
            'state',
            SendingState::Waiting,
        )->where('tries', 0)->delete();
    }

    private function addressAll(): void
    {
        $people = User::query()->where('removed_at', null)->get();
        $webhooks = Webhook::query()->get();
        foreach (Message::query()->whereNotNull('open_key')->get() as $message) {
            $this->address($message, $people, $webhooks);
        }
    }

    /**
     * @param  Collection<int, User>  $people
     * @param  Collection<int, Webhook>  $webhooks
     */
    private function address(Message $message, Collection $people, Collection $webhooks): void
    {
        foreach ($people as $person) {
            $chosen = Chosen::of($person);
            $wants = in_array($message->alarm, $chosen->byMail, true);
            if ($wants && $this->isLongEnough($message, $chosen->handMinutes)) {
                $this->send($message, "person {$person->id}", $person->id, null);
            }
        }
        foreach ($webhooks as $webhook) {
            if (in_array($message->alarm, $webhook->alarms, true)
                && $this->isLongEnough($message, $webhook->hand_minutes)) {
                $this->send($message, "webhook {$webhook->id}", null, $webhook->id);
            }
        }
    }

    private function isLongEnough(Message $message, int $minutes): bool
    {
        return $message->alarm !== Alarm::HandWanted
            || $message->raised_at <= $this->clock->now()->modify("-{$minutes} minutes");
    }

    private function send(Message $message, string $receiver, ?int $person, ?int $webhook): void
    {
        Sending::query()->insertOrIgnore([
            'message_id' => $message->id,
            'receiver' => $receiver,
            'user_id' => $person,
            'webhook_id' => $webhook,
            'state' => SendingState::Waiting->value,
            'created_at' => $this->clock->now(),
            'updated_at' => $this->clock->now(),
        ]);
    }

    private function forgetOld(): void
    {
        Message::query()
            ->where('ended_at', '<', $this->clock->now()->modify('-'.self::KEPT_DAYS.' days'))
            ->limit(500)
            ->delete();
    }
}
