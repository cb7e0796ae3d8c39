<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\AccessRequest;
use App\Http\Requests\ActRequest;
use App\Http\Requests\CodeRequest;
use App\Http\Requests\NewPasswordRequest;
use App\Http\Requests\TokenRequest;
use App\Http\Resources\TokenResource;
use App\Models\User;
use App\People\AccessRules;
use App\People\Passwords;
use App\People\SecondFactor;
use App\People\SignIns;
use App\People\Tokens;
use App\People\WrongPassword;
use App\Refusal\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;
use JadeStep\Core\Job\Role;
use JadeStep\Core\Time\Rfc3339;

/** One's own password, second factor and tokens; what leads do about other people's; what the shop demands. */
final readonly class AccessController
{
    private const NO_STORE = ['Cache-Control' => 'no-store'];

    public function __construct(
        private Passwords $passwords,
        private SecondFactor $secondFactor,
        private AccessRules $rules,
        private Tokens $tokens,
    ) {
    }

    public function changePassword(NewPasswordRequest $request, SignIns $signIns): Response
    {
        $fields = $request->fields();
        try {
            $signIns->assertPassword($request->person(), $fields->string('current'), (string) $request->ip());
        } catch (WrongPassword) {
            throw ValidationException::withMessages(['current' => 'This is not your password.']);
        }
        $this->passwords->change(
            $request->person(),
            $fields->string('password'),
            $request->hasSession() ? $request->session()->getId() : '',
        );

        return response()->noContent();
    }

    public function beginSecondFactor(ActRequest $request): JsonResponse
    {
        $code = $this->secondFactor->begin($request->person());

        return new JsonResponse([
            'secret' => $code->secret(),
            'address' => $code->address(config()->string('app.name'), $request->person()->email),
        ], 200, self::NO_STORE);
    }

    public function confirmSecondFactor(CodeRequest $request): JsonResponse
    {
        $codes = $this->secondFactor->confirm($request->person(), $request->fields()->string('code'));

        return new JsonResponse(['recoveryCodes' => $codes], 200, self::NO_STORE);
    }

    public function removeSecondFactor(ActRequest $request): Response
    {
        $this->secondFactor->remove($request->person(), $request->person());

        return response()->noContent();
    }

    public function removeSecondFactorOf(ActRequest $request, User $person): Response
    {
        $this->secondFactor->remove($person, $request->person());

        return response()->noContent();
    }

    public function giveLink(ActRequest $request, User $person): JsonResponse
    {
        $person->removed_at === null || throw Refusal::notNow('This person was removed.');
        $link = $this->passwords->link($person, $request->person());

        return new JsonResponse([
            'link' => rtrim($request->getSchemeAndHttpHost(), '/')."/#/new-password/{$link->token}",
            'until' => Rfc3339::format($link->until),
        ], 201, self::NO_STORE);
    }

    public function showLink(string $link): JsonResponse
    {
        return new JsonResponse(['name' => $this->passwords->ofLink($link)->name], 200, self::NO_STORE);
    }

    public function useLink(NewPasswordRequest $request, string $link): Response
    {
        $this->passwords->setByLink($link, $request->fields()->string('password'));

        return response()->noContent();
    }

    public function rules(): JsonResponse
    {
        return new JsonResponse(['leadsNeedSecondFactor' => $this->rules->leadsNeedSecondFactor()]);
    }

    public function setRules(AccessRequest $request): JsonResponse
    {
        $this->rules->set($request->fields()->bool('leadsNeedSecondFactor'), $request->person());

        return $this->rules();
    }

    public function tokens(ActRequest $request): JsonResponse
    {
        return new JsonResponse(['tokens' => TokenResource::collection($this->tokens->of($request->person()))]);
    }

    public function makeToken(TokenRequest $request): JsonResponse
    {
        $fields = $request->fields();
        $made = $this->tokens->make(
            $request->person(),
            $fields->string('name'),
            $fields->enum('role', Role::class),
            $request->integer('days'),
        );

        return new JsonResponse(
            ['token' => $made->plainTextToken, 'about' => new TokenResource($made->accessToken)],
            201,
            self::NO_STORE,
        );
    }

    public function endToken(ActRequest $request, int $token): Response
    {
        $this->tokens->end($request->person(), $token);

        return response()->noContent();
    }
}
