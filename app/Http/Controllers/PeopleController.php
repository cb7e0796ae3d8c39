<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\PersonRequest;
use App\Http\Resources\MemberResource;
use App\Models\User;
use App\People\People;
use App\People\SignedIn;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use JadeStep\Core\Time\Rfc3339;

/** People, by leads; one's own sessions, by everybody. */
final class PeopleController
{
    public function __construct(private readonly People $people)
    {
    }

    public function index(): JsonResponse
    {
        return new JsonResponse([
            'people' => MemberResource::collection(
                User::query()->where('removed_at', null)->oldest('id')->get(),
            ),
            'removed' => MemberResource::collection($this->people->restorable()->oldest('id')->get()),
        ]);
    }

    public function store(PersonRequest $request): JsonResponse
    {
        return new JsonResponse(new MemberResource($this->people->add($request->entry(), $request->person())), 201);
    }

    public function update(PersonRequest $request, User $person): JsonResponse
    {
        $this->people->change($person, $request->entry(), $request->person());

        return new JsonResponse(new MemberResource($person->refresh()));
    }

    public function destroy(ActRequest $request, User $person): Response
    {
        $this->people->remove($person, $request->person());

        return response()->noContent();
    }

    public function restore(ActRequest $request, User $person): JsonResponse
    {
        $this->people->restore($person, $request->person());

        return new JsonResponse(new MemberResource($person->refresh()));
    }

    public function sessions(ActRequest $request): JsonResponse
    {
        return new JsonResponse([
            'sessions' => array_map(
                static fn (SignedIn $s): array => [
                    'id' => $s->id,
                    'address' => $s->address,
                    'browser' => $s->browser,
                    'lastSeenAt' => Rfc3339::format($s->lastSeenAt),
                    'current' => $s->current,
                ],
                $this->people->sessions($request->person(), $request->session()->getId()),
            ),
        ]);
    }

    public function endSession(ActRequest $request, string $session): Response
    {
        $this->people->endSessions($request->person(), $session);

        return response()->noContent();
    }

    public function endSessionsOf(ActRequest $request, User $person): Response
    {
        $this->people->endSessionsOf($person, $request->person());

        return response()->noContent();
    }
}
