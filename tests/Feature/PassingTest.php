<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Database\Passing;
use App\Http\Middleware\AgainWherePassing;
use App\Steps\StepRunner;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Faults of the database that pass, and hosts of which one does not answer. */
final class PassingTest extends FeatureTestCase
{
    private const DEADLOCK = 'SQLSTATE[40001]: Serialization failure: 1213 Deadlock found when trying to get lock';

    public function test_the_first_host_that_answers_is_taken(): void
    {
        config()->set('database.connections.mariadb.host', ['127.0.0.250', '127.0.0.1', '127.0.0.251']);
        DB::purge();
        $status = DB::connection()->getPdo()->getAttribute(\PDO::ATTR_CONNECTION_STATUS);
        self::assertSame('127.0.0.1 via TCP/IP', $status);

        config()->set('database.connections.mariadb.host', ['127.0.0.250', '127.0.0.251']);
        DB::purge();
        try {
            DB::connection()->getPdo();
            self::fail('It has connected.');
        } catch (\PDOException $e) {
            self::assertTrue(Passing::is($e), 'The next attempt may find one.');
        } finally {
            config()->set('database.connections.mariadb.host', ['127.0.0.1']);
            DB::purge();
        }
    }

    public function test_a_request_whose_writing_had_to_give_way_is_answered_once_more(): void
    {
        $asked = 0;
        $request = Request::create('/api/v1/jobs', 'POST', cookies: ['session' => 'encrypted']);
        $cookies = [];
        $next = static function (Request $request) use (&$asked, &$cookies): JsonResponse {
            $cookies[] = $request->cookies->get('session');
            $request->cookies->set('session', 'decrypted');

            return ++$asked < 3
                ? (new JsonResponse([], 500))->withException(new \PDOException(self::DEADLOCK))
                : new JsonResponse(['done' => $asked]);
        };
        $answer = (new AgainWherePassing)->handle($request, $next);

        self::assertSame([200, '{"done":3}'], [$answer->getStatusCode(), $answer->getContent()]);
        self::assertSame(['encrypted', 'encrypted', 'encrypted'], $cookies, 'It is still who asked.');
    }

    public function test_a_step_whose_claim_had_to_give_way_is_run_at_once_and_nothing_is_logged(): void
    {
        $step = $this->openJob()->step(StepCode::Pair);
        $gaveWay = 0;
        DB::connection()->beforeExecuting(static function (string $question) use (&$gaveWay): void {
            if ($gaveWay < 2 && str_starts_with($question, 'update `job_steps`')) {
                $gaveWay++;
                throw new \PDOException(self::DEADLOCK);
            }
        });
        Log::listen(static fn ($line) => self::fail("It was logged: {$line->message}"));
        app(StepRunner::class)->run($step->id);

        self::assertSame(2, $gaveWay);
        self::assertSame([StepState::Done, 1], [$step->refresh()->state, $step->attempt]);
    }

    public function test_what_does_not_pass_is_answered_at_once_and_what_passes_not_for_ever(): void
    {
        $asked = 0;
        $with = static function (\Throwable $e) use (&$asked): \Closure {
            $asked = 0;

            return static function () use ($e, &$asked): JsonResponse {
                $asked++;

                return (new JsonResponse([], 500))->withException($e);
            };
        };
        $again = new AgainWherePassing;
        $again->handle(Request::create('/api/v1/jobs', 'POST'), $with(new \PDOException('1064 no such thing')));
        self::assertSame(1, $asked);
        $again->handle(Request::create('/api/v1/jobs', 'POST'), $with(new \LogicException('a fault of ours')));
        self::assertSame(1, $asked);
        $again->handle(Request::create('/api/v1/jobs', 'POST'), $with(new \PDOException(self::DEADLOCK)));
        self::assertSame(Passing::ATTEMPTS, $asked);
        $file = Request::create('/api/v1/imports', 'POST', content: 'PK, and what follows it');
        $again->handle($file, $with(new \PDOException(self::DEADLOCK)));
        self::assertSame(1, $asked, 'What comes as a file is read once.');
    }
}
