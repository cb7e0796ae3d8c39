<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\PersonRequest;
use App\Models\User;
use App\People\People;
use Illuminate\Http\JsonResponse;
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
        return new JsonResponse(self::person($this->people->add($request->entry(), $request->person())), 201);
    }

    public function update(PersonRequest $request, User $person): JsonResponse
    {
        $this->people->change($person, $request->entry(), $request->person());

        return new JsonResponse(self::person($person->refresh()));
    }

    public function destroy(ActRequest $request, User $person): Response
    {
        $this->people->remove($person, $request->person());

        return response()->noContent();
    }

    public function sessions(ActRequest $request): JsonResponse
    {
        return new JsonResponse(['sessions' => $this->people->sessions($request->person(), $request->session()->getId())]);
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

    /** @return array<string, mixed> */
    private static function person(User $p): array
    {
        return ['id' => $p->id, 'name' => $p->name, 'email' => $p->email, 'role' => $p->role->value];
    }
}
