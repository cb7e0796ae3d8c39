<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A message on its way to one receiver: a person by mail, or a webhook.
 *
 * @property int $id
 * @property int $message_id
 * @property string $receiver
 * @property int|null $user_id
 * @property int|null $webhook_id
 * @property SendingState $state
 * @property int $tries
 * @property \Illuminate\Support\Carbon|null $not_before
 * @property string|null $problem
 * @property \Illuminate\Support\Carbon|null $claimed_at
 * @property \Illuminate\Support\Carbon|null $sent_at
 * @property \Illuminate\Support\Carbon|null $updated_at
 * @property-read Message $message
 * @property-read User|null $person
 * @property-read Webhook|null $webhook
 */
final class Sending extends Model
{
    protected $guarded = ['id'];

    protected function casts(): array
    {
        return [
            'state' => SendingState::class,
            'tries' => 'integer',
            'not_before' => 'datetime',
            'claimed_at' => 'datetime',
            'sent_at' => 'datetime',
        ];
    }

    /** @return Builder<self> that did not go out, or of which nobody knows */
    public static function notSentSince(\DateTimeImmutable $since): Builder
    {
        return self::query()
            ->whereIn('state', [SendingState::Failed, SendingState::Unknown])
            ->where('updated_at', '>=', $since);
    }

    /** @return BelongsTo<Message, $this> */
    public function message(): BelongsTo
    {
        return $this->belongsTo(Message::class);
    }

    /** @return BelongsTo<User, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    /** @return BelongsTo<Webhook, $this> */
    public function webhook(): BelongsTo
    {
        return $this->belongsTo(Webhook::class);
    }
}
