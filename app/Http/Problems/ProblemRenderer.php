<?php

declare(strict_types=1);

namespace App\Http\Problems;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
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
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Every error of the API as problem details (RFC 9457), with a code for programs and words that say what to do. */
final class ProblemRenderer
{
    public static function response(\Throwable $e): JsonResponse
    {
        $problem = match (true) {
            $e instanceof ValidationException => self::problem(422, 'invalid-input', 'Some fields cannot be used: see errors.', ['errors' => self::errors($e->errors())]),
            $e instanceof InvalidDocument => self::problem(422, 'invalid-input', 'The document cannot be used: see errors.', ['errors' => $e->faults]),
            $e instanceof UnreadableCsv => self::problem(422, 'unreadable-table', $e->getMessage()),
            $e instanceof Refusal => self::problem($e->reason === 'wrong-serial' ? 422 : 409, $e->reason, $e->getMessage(), $e->checks === [] ? [] : ['checks' => PlanDocument::checks($e->checks)]),
            $e instanceof AuthenticationException => self::problem(401, 'signed-out', 'Sign in first.'),
            $e instanceof TokenMismatchException => self::problem(419, 'page-expired', 'This page is too old. Load it again.'),
            $e instanceof AuthorizationException => self::problem(403, 'not-allowed', 'Your role does not allow this. Ask a technician or a lead.'),
            $e instanceof LinkLost => self::problem(503, 'link-lost', $e->getMessage().' Check that it runs and is plugged in, then try again.'),
            $e instanceof Declined => self::problem(409, $e->reason, $e->getMessage()),
            $e instanceof Unopened => self::problem($e->passphraseIsWrong ? 422 : 409, $e->passphraseIsWrong ? 'wrong-passphrase' : 'damaged', $e->getMessage()),
            $e instanceof BagException => self::problem(409, 'bag', $e->getMessage()),
            $e instanceof PermitException => self::problem(409, 'untrusted', $e->getMessage()),
            $e instanceof HttpExceptionInterface => self::http($e),
            default => self::problem(500, 'internal', 'Something in this program went wrong; the log names it. Nothing was lost: try again.'),
        };
        $headers = $e instanceof HttpExceptionInterface ? $e->getHeaders() : [];

        return new JsonResponse($problem, $problem['status'], ['Content-Type' => 'application/problem+json'] + $headers);
    }

    /** @return array<string, mixed> */
    private static function http(HttpExceptionInterface $e): array
    {
        return match ($e->getStatusCode()) {
            403 => self::problem(403, 'not-allowed', 'Your role does not allow this. Ask a technician or a lead.'),
            404 => self::problem(404, 'not-found', 'There is nothing here. It may have been removed.'),
            405 => self::problem(405, 'method-not-allowed', 'This address does not take this method.'),
            419 => self::problem(419, 'page-expired', 'This page is too old. Load it again.'),
            429 => self::problem(429, 'too-many', 'Too many tries. Wait a minute, then try again.'),
            default => self::problem($e->getStatusCode(), 'http-error', 'The request could not be answered.'),
        };
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function problem(int $status, string $code, string $detail, array $more = []): array
    {
        return ['type' => 'about:blank', 'title' => Response::$statusTexts[$status] ?? 'Error', 'status' => $status, 'detail' => $detail, 'code' => $code] + $more;
    }

    /**
     * @param  array<string, list<string>>  $errors
     * @return list<array{pointer: string, message: string}>
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
