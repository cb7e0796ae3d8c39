<?php

declare(strict_types=1);

namespace App\Watch;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use App\Models\Webhook;
use App\Ports\Exception\NotSent;
use App\Ports\Webhooks;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Watch\Alarm;
use Psr\Clock\ClockInterface;

/** The webhooks of the shop, which its leads set up. */
final readonly class WebhookList
{
    public function __construct(private Webhooks $webhooks, private Journal $journal, private ClockInterface $clock)
    {
    }

    /**
     * @param  list<Alarm>  $alarms
     * @return array{Webhook, string} with what both sides sign with, which is shown this once
     */
    public function add(string $name, string $address, array $alarms, int $handMinutes, User $by): array
    {
        $secret = bin2hex(random_bytes(32));
        $webhook = DB::transaction(function () use ($name, $address, $alarms, $handMinutes, $by, $secret): Webhook {
            $this->journal->noteDeed(Deed::AddWebhook, $by, new Evidence(['name' => $name, 'address' => $address]));

            return Webhook::query()->create([
                'name' => $name,
                'address' => $address,
                'secret' => $secret,
                'alarms' => $alarms,
                'hand_minutes' => $handMinutes,
                'made_by' => $by->name,
            ]);
        });

        return [$webhook, $secret];
    }

    public function remove(Webhook $webhook, User $by): void
    {
        DB::transaction(function () use ($webhook, $by): void {
            $webhook->delete();
            $this->journal->noteDeed(Deed::RemoveWebhook, $by, new Evidence(['name' => $webhook->name]));
        });
    }

    /** @throws Refusal where it did not take it */
    public function try(Webhook $webhook): void
    {
        $now = $this->clock->now();
        try {
            $this->webhooks->send($webhook->address, [
                'type' => 'trial',
                'timestamp' => Rfc3339::format($now),
                'data' => ['subject' => 'A trial: nothing is wrong'],
            ], "jade-step-trial-{$webhook->id}-{$now->getTimestamp()}", $webhook->secret);
        } catch (NotSent $e) {
            throw Refusal::notNow($e->getMessage());
        }
    }
}
