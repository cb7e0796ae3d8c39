<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Sending;
use App\Models\SendingState;
use App\Ports\Exception\NotSent;
use App\Ports\Post;
use App\Ports\Webhooks;
use App\Rounds\Round;
use App\Shop\Shop;
use Illuminate\Database\Eloquent\Builder;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Sends what is due: each message once to each receiver. It is claimed before it goes out; where whoever sent it was
 * killed on the way, nobody knows whether it went out, and it is not sent again.
 */
final readonly class Sender implements Round
{
    private const AT_ONCE = 20;

    private const LOST_SECONDS = 120;

    /** Seconds until the next try; after the last it is given up. */
    private const PAUSES = [20, 60, 300, 900, 3600];

    public function __construct(
        private Post $post,
        private Webhooks $webhooks,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return 3;
    }

    public function look(): void
    {
        $this->sendDue();
    }

    public function sendDue(): void
    {
        $now = $this->clock->now();
        Sending::query()
            ->where('state', SendingState::Going)
            ->where('claimed_at', '<', $now->modify('-'.self::LOST_SECONDS.' seconds'))
            ->update([
                'state' => SendingState::Unknown,
                'problem' => 'Whoever sent it was stopped on the way: it may have gone out, and is not sent again.',
            ]);
        $due = Sending::query()
            ->where('state', SendingState::Waiting)
            ->where(static fn (Builder $q) => $q->whereNull('not_before')->orWhere('not_before', '<=', $now))
            ->with('message', 'person', 'webhook')
            ->oldest('id')
            ->limit(self::AT_ONCE)
            ->get();
        foreach ($due as $sending) {
            if ($this->claim($sending)) {
                $this->send($sending->refresh());
            }
        }
    }

    private function claim(Sending $sending): bool
    {
        return Sending::query()
            ->whereKey($sending->id)
            ->where('state', SendingState::Waiting)
            ->update(['state' => SendingState::Going, 'claimed_at' => $this->clock->now()]) === 1;
    }

    private function send(Sending $sending): void
    {
        try {
            match (true) {
                $sending->person !== null && $sending->person->removed_at === null => $this->post->send(
                    $sending->person->email,
                    $sending->message->subject,
                    $this->text($sending),
                    "jade-step.{$sending->message_id}.{$sending->id}",
                ),
                $sending->webhook !== null => $this->webhooks->send(
                    $sending->webhook->address,
                    $this->body($sending),
                    "jade-step-{$sending->message_id}-{$sending->id}",
                    $sending->webhook->secret,
                ),
                default => throw new NotSent('Whom it was for is not here any more.', true),
            };
            $sending->update([
                'state' => SendingState::Sent,
                'sent_at' => $this->clock->now(),
                'problem' => null,
                'tries' => $sending->tries + 1,
            ]);
        } catch (NotSent $e) {
            $this->putOff($sending, $e);
        }
    }

    private function putOff(Sending $sending, NotSent $e): void
    {
        $pause = self::PAUSES[$sending->tries] ?? null;
        $sending->update([
            'state' => match (true) {
                $e->maybe => SendingState::Unknown,
                $pause === null => SendingState::Failed,
                default => SendingState::Waiting,
            },
            'tries' => $sending->tries + 1,
            'problem' => $e->getMessage(),
            'not_before' => $pause === null ? null : $this->clock->now()->modify("+{$pause} seconds"),
        ]);
    }

    private function text(Sending $sending): string
    {
        $message = $sending->message;
        $shop = Shop::read()->name;
        $at = $shop === '' ? '' : ", at {$shop}";
        $since = Rfc3339::format($message->raised_at->toDateTimeImmutable());

        return implode("\n\n", array_filter([
            $message->subject.'.',
            $message->detail,
            $message->alarm->remedy(),
            $this->address($sending),
            "Since {$since}{$at}. You have chosen to be told: Settings, Watching.",
        ], static fn (string $part): bool => $part !== ''))."\n";
    }

    /** @return array<string, mixed> */
    private function body(Sending $sending): array
    {
        $message = $sending->message;

        return [
            'type' => $message->alarm->value,
            'timestamp' => Rfc3339::format($message->raised_at->toDateTimeImmutable()),
            'data' => [
                'subject' => $message->subject,
                'detail' => $message->detail,
                'remedy' => $message->alarm->remedy(),
                'page' => $this->address($sending),
            ],
        ];
    }

    private function address(Sending $sending): string
    {
        return rtrim(config()->string('app.url'), '/')."/#{$sending->message->path}";
    }
}
