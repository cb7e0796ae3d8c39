<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Message;
use App\Models\Sending;
use App\Models\User;
use App\Models\Webhook;
use App\Ports\Post;
use JadeStep\Core\Time\Rfc3339;

/** What Settings show of watching: what a person has chosen, what was raised of late, and whether it went out. */
final readonly class WatchingPage
{
    private const SHOWN = 40;

    public function __construct(private Post $post)
    {
    }

    /** @return array<string, mixed> */
    public function told(User $to): array
    {
        $leads = $to->actingRole()->leads();

        return [
            'chosen' => Chosen::of($to)->told(),
            'mailIsSetUp' => $this->post->isSetUp(),
            'address' => $to->email,
            'messages' => $this->messages($to, $leads),
            'webhooks' => $leads ? Webhook::query()->oldest('id')->get()->map(self::webhook(...))->all() : [],
        ];
    }

    /** @return array<string, mixed> without its secret, which is shown once, when it is made */
    public static function webhook(Webhook $w): array
    {
        return [
            'id' => $w->id,
            'name' => $w->name,
            'address' => $w->address,
            'alarms' => array_column($w->alarms, 'value'),
            'handMinutes' => $w->hand_minutes,
            'madeBy' => $w->made_by,
        ];
    }

    /** @return list<array<string, mixed>> the latest first, each with the receivers that this person may know of */
    private function messages(User $to, bool $leads): array
    {
        $told = [];
        $latest = Message::query()->with('sendings.person', 'sendings.webhook')->latest('id')->limit(self::SHOWN);
        foreach ($latest->get() as $m) {
            $mine = $m->sendings->filter(static fn (Sending $s): bool => $leads || $s->user_id === $to->id);
            $told[] = [
                'id' => $m->id,
                'alarm' => $m->alarm->value,
                'subject' => $m->subject,
                'detail' => $m->detail,
                'path' => $m->path,
                'raisedAt' => Rfc3339::format($m->raised_at->toDateTimeImmutable()),
                'endedAt' => Rfc3339::formatOrNull($m->ended_at?->toDateTimeImmutable()),
                'sendings' => array_values($mine->map(self::sending(...))->all()),
            ];
        }

        return $told;
    }

    /** @return array<string, mixed> */
    private static function sending(Sending $s): array
    {
        return [
            'to' => $s->person->name ?? $s->webhook->name ?? 'somebody who is gone',
            'by' => $s->webhook_id === null ? 'mail' : 'webhook',
            'state' => $s->state->value,
            'tries' => $s->tries,
            'problem' => $s->problem,
            'sentAt' => Rfc3339::formatOrNull($s->sent_at?->toDateTimeImmutable()),
        ];
    }
}
