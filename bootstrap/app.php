<?php

declare(strict_types=1);

use App\Http\Middleware\AgainWherePassing;
use App\Http\Middleware\HoldBody;
use App\Http\Middleware\KnownHost;
use App\Http\Middleware\NotesRefusals;
use App\Http\Middleware\OneLargeFile;
use App\Http\Middleware\OwnPages;
use App\Http\Middleware\PasswordAgain;
use App\Http\Middleware\SafeHeaders;
use App\Http\Middleware\SecondFactorDue;
use App\Http\Middleware\SecureCookies;
use App\Http\Middleware\SessionIfAny;
use App\Http\Middleware\StillThere;
use App\Http\Middleware\TellsWhatWasDone;
use App\Http\Problems\DatabaseFault;
use App\Http\Problems\ProblemRenderer;
use App\Installation\CheckInstallation;
use App\Installation\CloseAnew;
use App\Installation\ListBags;
use App\Installation\MakeLead;
use App\Installation\NoteOwnBackup;
use App\Installation\SeedDemo;
use App\Installation\SettleRestored;
use Illuminate\Auth\Middleware\Authorize;
use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Illuminate\Routing\Middleware\ThrottleRequests;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        commands: __DIR__.'/../routes/console.php',
        apiPrefix: 'api/v1',
    )
    ->withCommands([
        SeedDemo::class,
        MakeLead::class,
        CheckInstallation::class,
        ListBags::class,
        SettleRestored::class,
        CloseAnew::class,
        NoteOwnBackup::class,
    ])
    ->withMiddleware(static function (Middleware $middleware): void {
        $middleware->prepend([SafeHeaders::class, HoldBody::class]);
        $middleware->append([KnownHost::class, SecureCookies::class, AgainWherePassing::class]);
        $middleware->api(prepend: [
            EncryptCookies::class,
            AddQueuedCookiesToResponse::class,
            SessionIfAny::class,
            OwnPages::class,
            NotesRefusals::class,
            TellsWhatWasDone::class,
        ]);
        // whether somebody may ask is settled before whether there is what they ask for
        $middleware->priority([
            EncryptCookies::class,
            AddQueuedCookiesToResponse::class,
            SessionIfAny::class,
            OwnPages::class,
            NotesRefusals::class,
            ThrottleRequests::class,
            AuthenticatesRequests::class,
            StillThere::class,
            SecondFactorDue::class,
            Authorize::class,
            PasswordAgain::class,
            OneLargeFile::class,
            SubstituteBindings::class,
        ]);
        $middleware->trimStrings(['password', 'current', 'passphrase', 'again', 'otherPassphrase']); // blanks count
        $middleware->redirectGuestsTo(static fn (): string => '/');
        $middleware->remove(HandleCors::class); // one origin; see compat/README.md
    })
    ->withExceptions(static function (Exceptions $exceptions): void {
        // a refusal is an answer, and stands in the Journal; it is no error of the program
        $exceptions->dontReport(ProblemRenderer::ANSWERS);
        $exceptions->dontFlash(['password', 'current', 'code', 'passphrase', 'again', 'otherPassphrase']);
        // what was asked of the database holds what people asked for, and whose session it was
        $exceptions
            ->report(static fn (PDOException $e) => DatabaseFault::note($e))
            ->stop();
        $exceptions->render(
            static fn (Throwable $e, Request $request) => str_starts_with($request->getPathInfo(), '/api/')
                ? ProblemRenderer::response($e)
                : null,
        );
    })
    ->create();

// Everything that an instance keeps lies in one folder: settings, database, bags, packages, logs.
$instance = getenv('JADE_VAR') ?: dirname(__DIR__).'/var';
$app->useEnvironmentPath($instance);
$app->loadEnvironmentFrom('jade.env');
$app->useStoragePath($instance.'/storage');

return $app;
