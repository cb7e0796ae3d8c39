<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\WatchingRequest;
use App\Http\Requests\WebhookRequest;
use App\Models\Webhook;
use App\Ports\Exception\NotSent;
use App\Ports\Post;
use App\Refusal\Refusal;
use App\Watch\Chosen;
use App\Watch\Health;
use App\Watch\HealthState;
use App\Watch\Metrics;
use App\Watch\WatchingPage;
use App\Watch\WebhookList;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use JadeStep\Core\Watch\MetricsText;

/** How the instance is, what is counted, and who is told of what. */
final readonly class WatchingController
{
    public function __construct(private WatchingPage $page)
    {
    }

    /** 503 where work stands still, so that a watcher that reads nothing else knows it. */
    public function health(Health $health): JsonResponse
    {
        $components = $health->components();
        $worst = Health::worst($components);

        return new JsonResponse(
            ['state' => $worst->value, 'components' => $components],
            $worst === HealthState::Fails ? 503 : 200,
        );
    }

    public function metrics(Metrics $metrics): Response
    {
        return new Response($metrics->text(), 200, ['Content-Type' => MetricsText::MEDIA_TYPE]);
    }

    public function show(ActRequest $request): JsonResponse
    {
        return new JsonResponse($this->page->told($request->person()));
    }

    public function choose(WatchingRequest $request): JsonResponse
    {
        Chosen::ofFields($request->fields())->keep($request->person());

        return new JsonResponse($this->page->told($request->person()));
    }

    public function tryMail(ActRequest $request, Post $post): Response
    {
        $to = $request->person();
        try {
            $post->send(
                $to->email,
                'A trial of Jade Step',
                "This mail was asked for in Settings, to see that mail arrives. Nothing is wrong.\n",
                'jade-step.trial.'.bin2hex(random_bytes(8)),
            );
        } catch (NotSent $e) {
            throw Refusal::notNow($e->getMessage());
        }

        return response()->noContent();
    }

    public function addWebhook(WebhookRequest $request, WebhookList $webhooks): JsonResponse
    {
        [$webhook, $secret] = $webhooks->add(
            $request->fields()->string('name'),
            $request->fields()->string('address'),
            $request->alarms(),
            $request->fields()->int('handMinutes'),
            $request->person(),
        );

        return new JsonResponse(['webhook' => WatchingPage::webhook($webhook), 'secret' => $secret], 201);
    }

    public function removeWebhook(ActRequest $request, Webhook $webhook, WebhookList $webhooks): Response
    {
        $webhooks->remove($webhook, $request->person());

        return response()->noContent();
    }

    public function tryWebhook(Webhook $webhook, WebhookList $webhooks): Response
    {
        $webhooks->try($webhook);

        return response()->noContent();
    }
}
