<?php

declare(strict_types=1);

namespace Standins\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Exception\MethodNotAllowedException;
use Symfony\Component\Routing\Exception\ResourceNotFoundException;
use Symfony\Component\Routing\Matcher\UrlMatcher;
use Symfony\Component\Routing\RequestContext;
use Symfony\Component\Routing\Route;
use Symfony\Component\Routing\RouteCollection;

/** Matches a request to a handler and sends what it answers. */
final class Kernel
{
    public static function serve(RouteCollection $routes): void
    {
        $request = Request::createFromGlobals();
        self::answer($request, $routes)->prepare($request)->send();
    }

    /** @param  callable(Request, array<string, string>): (Response|array<mixed>)  $handler */
    public static function route(RouteCollection $routes, string $method, string $path, callable $handler): void
    {
        $routes->add(
            "{$method} {$path}",
            new Route($path, ['_handler' => $handler], ['path' => '.+'], methods: [$method]),
        );
    }

    private static function answer(Request $request, RouteCollection $routes): Response
    {
        try {
            $match = (new UrlMatcher($routes, (new RequestContext)->fromRequest($request)))->match(
                rawurldecode($request->getPathInfo()),
            );
            $answer = $match['_handler']($request, $match);

            return $answer instanceof Response ? $answer : new JsonResponse($answer);
        } catch (ResourceNotFoundException) {
            return (new Problem(404, 'not-found', 'There is nothing at this address.'))->response();
        } catch (MethodNotAllowedException) {
            return (new Problem(405, 'method-not-allowed', 'This address does not take this method.'))->response();
        } catch (Problem $problem) {
            return $problem->response();
        }
    }

    /** @return array<string, mixed> */
    public static function body(Request $request): array
    {
        $body = json_decode($request->getContent(), true, 8);

        return is_array($body) ? $body : throw new Problem(400, 'bad-json', 'The body must be a JSON object.');
    }

    /** @param  array<string, mixed>  $body */
    public static function text(array $body, string $field): string
    {
        $value = $body[$field] ?? null;

        return is_string($value) && $value !== ''
            ? $value
            : throw new Problem(400, 'bad-field', "The field {$field} must be a text.");
    }
}
