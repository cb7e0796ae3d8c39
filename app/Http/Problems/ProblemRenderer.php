<?php

declare(strict_types=1);

namespace App\Http\Problems;

use App\Database\Passing;
use App\People\PasswordWanted;
use App\People\SecondFactorWanted;
use App\People\TooManyTries;
use App\People\WrongCode;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\NotReceived;
use App\Refusal\Refusal;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Permit\Exception\PermitException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Every error of the API as problem details (RFC 9457), with a code for programs and words that say what to do. */
final class ProblemRenderer
{
    /** Answers, and no errors of the program: they are not logged; what people were refused stands in the Journal. */
    public const ANSWERS = [
        Refusal::class,
        Declined::class,
        LinkLost::class,
        NotReceived::class,
        BagException::class,
        PermitException::class,
        InvalidDocument::class,
        UnreadableCsv::class,
        PasswordWanted::class,
        SecondFactorWanted::class,
        WrongCode::class,
        TooManyTries::class,
    ];

    public static function response(\Throwable $e): JsonResponse
    {
        $problem = match (true) {
            $e instanceof ValidationException => ProblemDetails::of(
                422,
                'invalid-input',
                'Some fields cannot be used: see errors.',
                errors: self::errors($e->errors()),
            ),
            $e instanceof InvalidDocument => ProblemDetails::of(
                422,
                'invalid-input',
                'The document cannot be used: see errors.',
                errors: $e->faults,
            ),
            $e instanceof UnreadableCsv => self::at('csv', 422, 'unreadable-table', $e->getMessage()),
            $e instanceof Refusal => ProblemDetails::of(
                $e->reason === 'wrong-serial' ? 422 : 409,
                $e->reason,
                $e->getMessage(),
                ...$e->field === null ? [] : ['errors' => self::errorAt($e->field, $e->getMessage())],
                ...$e->checks === [] ? [] : ['checks' => PlanDocument::checks($e->checks)],
            ),
            $e instanceof AuthenticationException => ProblemDetails::of(
                401,
                'signed-out',
                $e->getMessage() === 'Unauthenticated.' ? 'Sign in first.' : $e->getMessage(),
            ),
            $e instanceof PasswordWanted => ProblemDetails::of(403, 'password-wanted', $e->getMessage()),
            $e instanceof SecondFactorWanted => ProblemDetails::of(403, 'second-factor-wanted', $e->getMessage()),
            $e instanceof WrongCode => self::at('code', 422, 'wrong-code', $e->getMessage()),
            $e instanceof TooManyTries => ProblemDetails::of(429, 'too-many', $e->getMessage()),
            $e instanceof \PDOException && Passing::isAway($e) => ProblemDetails::of(
                503,
                'database-away',
                'The database does not answer. It is started again by itself: try again in a moment. Nothing was lost.',
            ),
            $e instanceof TokenMismatchException => ProblemDetails::of(
                419,
                'page-expired',
                'This page is too old. Load it again.',
            ),
            $e instanceof AuthorizationException => ProblemDetails::of(
                403,
                'not-allowed',
                'Your role does not allow this. Ask a technician or a lead.',
            ),
            $e instanceof LinkLost => ProblemDetails::of(
                503,
                'link-lost',
                $e->getMessage().' Check that it runs and is plugged in, then try again.',
            ),
            $e instanceof Declined => ProblemDetails::of(409, $e->reason, $e->getMessage()),
            $e instanceof Unopened && $e->passphraseIsWrong => self::at(
                'passphrase',
                422,
                'wrong-passphrase',
                $e->getMessage(),
            ),
            $e instanceof Unopened => ProblemDetails::of(409, 'damaged', $e->getMessage()),
            $e instanceof NotReceived => ProblemDetails::of($e->status, $e->reason, $e->getMessage()),
            $e instanceof BagException => ProblemDetails::of(409, 'bag', $e->getMessage()),
            $e instanceof PermitException => ProblemDetails::of(409, 'untrusted', $e->getMessage()),
            $e instanceof HttpExceptionInterface => self::http($e),
            default => ProblemDetails::of(
                500,
                'internal',
                'Something in this program went wrong; the log names it. Nothing was lost: try again.',
            ),
        };
        $headers = match (true) {
            $e instanceof HttpExceptionInterface => $e->getHeaders(),
            $e instanceof TooManyTries => ['Retry-After' => $e->seconds],
            $problem->status === 503 => ['Retry-After' => 5],
            default => [],
        };

        return new JsonResponse(
            $problem,
            $problem->status,
            ['Content-Type' => 'application/problem+json'] + $headers,
        );
    }

    /** It is about one field of what was sent, and stands there on a screen. */
    private static function at(string $field, int $status, string $code, string $words): ProblemDetails
    {
        return ProblemDetails::of($status, $code, $words, errors: self::errorAt($field, $words));
    }

    /** @return list<array{pointer: string, message: string}> */
    private static function errorAt(string $field, string $words): array
    {
        return [['pointer' => "/{$field}", 'message' => $words]];
    }

    private static function http(HttpExceptionInterface $e): ProblemDetails
    {
        return match ($e->getStatusCode()) {
            403 => ProblemDetails::of(403, 'not-allowed', 'Your role does not allow this. Ask a technician or a lead.'),
            404 => ProblemDetails::of(404, 'not-found', 'There is nothing here. It may have been removed.'),
            405 => ProblemDetails::of(405, 'method-not-allowed', 'This address does not take this method.'),
            419 => ProblemDetails::of(419, 'page-expired', 'This page is too old. Load it again.'),
            429 => ProblemDetails::of(429, 'too-many', 'Too many tries. Wait a minute, then try again.'),
            411 => ProblemDetails::of(411, 'length-wanted', $e->getMessage()),
            413 => ProblemDetails::of(413, 'too-large', $e->getMessage()),
            415 => ProblemDetails::of(415, 'wrong-type', $e->getMessage()),
            400 => ProblemDetails::of(
                400,
                'bad-request',
                $e->getMessage() === '' ? 'The request could not be read.' : $e->getMessage(),
            ),
            default => ProblemDetails::of($e->getStatusCode(), 'http-error', 'The request could not be answered.'),
        };
    }

    /**
     * @param  array<string, list<string>>  $errors
     * @return list<array<string, string>> each with its pointer (RFC 6901) and a message
     */
    private static function errors(array $errors): array
    {
        $list = [];
        foreach ($errors as $field => $messages) {
            foreach ($messages as $message) {
                $list[] = ['pointer' => '/'.str_replace('.', '/', (string) $field), 'message' => $message];
            }
        }

        return $list;
    }
}
