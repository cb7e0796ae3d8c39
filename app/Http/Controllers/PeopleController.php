<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\PersonRequest;
use App\Models\User;
use App\People\People;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** People, by leads; one's own sessions, by everybody. */
final class PeopleController
{
    public function __construct(private readonly People $people)
    {
    }

    public function index(): JsonResponse
    {
        return new JsonResponse(['people' => User::query()->where('removed_at', null)->oldest('id')->get()->map(self::person(...))->values()]);
    }

    public function store(PersonRequest $request): JsonResponse
    {
        return new JsonResponse(self::person($this->people->add($request->fields())), 201);
    }

    public function update(PersonRequest $request, User $person): JsonResponse
    {
        $this->people->change($person, $request->fields());

        return new JsonResponse(self::person($person->refresh()));
    }

    public function destroy(User $person): Response
    {
        $this->people->remove($person);

        return response()->noContent();
    }

    public function sessions(Request $request): JsonResponse
    {
        return new JsonResponse(['sessions' => $this->people->sessions($request->user(), $request->session()->getId())]);
    }

    public function endSession(Request $request, string $session): Response
    {
        $this->people->endSessions($request->user(), $session);

        return response()->noContent();
    }

    public function endSessionsOf(User $person): Response
    {
        $this->people->endSessions($person, null);

        return response()->noContent();
    }

    /** @return array<string, mixed> */
    private static function person(User $p): array
    {
        return ['id' => $p->id, 'name' => $p->name, 'email' => $p->email, 'role' => $p->role->value];
    }
}
