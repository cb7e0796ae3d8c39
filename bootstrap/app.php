<?php

declare(strict_types=1);

use App\Http\Problems\ProblemRenderer;
use App\Installation\SeedDemo;
use App\Ports\Exception\Declined;
use App\Refusal\Refusal;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        commands: __DIR__.'/../routes/console.php',
        apiPrefix: 'api/v1',
    )
    ->withCommands([SeedDemo::class])
    ->withMiddleware(static function (Middleware $middleware): void {
        $middleware->statefulApi();
        $middleware->trimStrings(['passphrase', 'again', 'otherPassphrase']); // blanks count
        $middleware->redirectGuestsTo(static fn (): string => '/');
        $middleware->remove(HandleCors::class); // one origin; see compat/README.md
    })
    ->withExceptions(static function (Exceptions $exceptions): void {
        // a refusal is an answer, and stands in the Journal; it is no error of the program
        $exceptions->dontReport([Refusal::class, Declined::class]);
        $exceptions->dontFlash(['password', 'passphrase', 'again', 'otherPassphrase']);
        $exceptions->render(
            static fn (Throwable $e, Request $request) => $request->is('api/*') ? ProblemRenderer::response($e) : null,
        );
    })
    ->create();

// Everything that an instance keeps lies in one folder: settings, database, bags, packages, logs.
$instance = getenv('JADE_VAR') ?: dirname(__DIR__).'/var';
$app->useEnvironmentPath($instance);
$app->loadEnvironmentFrom('jade.env');
$app->useStoragePath($instance.'/storage');

return $app;
