<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Facts\ChecksOfJob;
use App\Facts\JobFacts;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Tests\Support\Sample;

/** The line is judged by the route that was accepted, and by no other that may be better at the moment. */
final class EraseLineTest extends ServerlessTestCase
{
    public function test_a_window_that_closed_meanwhile_is_named_and_nothing_of_another_route(): void
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint']);
        $this->runCalledSteps();
        $accepted = $job->refresh()->takenRoute()->id;

        // the accepted build is closed, and another one leads to the goal now, at another price
        $this->hold([
            Sample::build('9.3.0', '9D55', [[self::day('-30 days'), null]]),
            Sample::build('8.7.0', '8G210', [[self::day('-60 days'), self::day('-1 hour')]]),
            Sample::build('8.6.0', '8F190', [[self::day('-90 days'), null]]),
        ]);
        $this->app->make(ChecksOfJob::class)->keep($job->refresh());

        self::assertSame($accepted, $job->refresh()->takenRoute()->id);
        $failed = array_filter($job->checks, static fn (Check $c): bool => $c->state === CheckState::Fail);
        $codes = array_map(static fn (Check $c): CheckCode => $c->code, $failed);
        self::assertContains(CheckCode::Permit, $codes);
        $words = implode(' ', array_map(static fn (Check $c): string => "{$c->mend()} {$c->evidence}", $failed));
        self::assertStringContainsString('The window of 8.7 (8G210) is closed', $words);
        self::assertStringNotContainsString('8.6', $words);
        $may = $this->app->make(JobFacts::class)->job($job)->may(Act::CrossLine);
        self::assertFalse($may->isAllowed());
    }
}
