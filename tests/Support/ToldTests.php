<?php

declare(strict_types=1);

namespace Tests\Support;

use PHPUnit\Event\Event;
use PHPUnit\Event\Test\BeforeFirstTestMethodErrored;
use PHPUnit\Event\Test\Errored;
use PHPUnit\Event\Test\Failed;
use PHPUnit\Event\Test\Finished;
use PHPUnit\Event\Test\MarkedIncomplete;
use PHPUnit\Event\Test\PreparationStarted;
use PHPUnit\Event\Test\Skipped;
use PHPUnit\Event\Tracer\Tracer;
use PHPUnit\Runner\Extension\Extension;
use PHPUnit\Runner\Extension\Facade;
use PHPUnit\Runner\Extension\ParameterCollection;
use PHPUnit\TextUI\Configuration\Configuration;

/**
 * Writes a line for each test into the file that JADE_TOLD names: `passed`, `failed` or `skipped`, seconds, its name
 * and why it was skipped, with tabs between. Many processes write into it; bin/lib/told.php reads it at a run's end.
 */
final class ToldTests implements Extension, Tracer
{
    private string $file = '';

    private float $began = 0;

    private string $outcome = 'passed';

    public function bootstrap(Configuration $configuration, Facade $facade, ParameterCollection $parameters): void
    {
        $this->file = (string) getenv('JADE_TOLD');
        $this->file === '' || $facade->registerTracer($this);
    }

    public function trace(Event $event): void
    {
        if ($event instanceof PreparationStarted) {
            [$this->began, $this->outcome] = [microtime(true), 'passed'];
        } elseif ($event instanceof Failed || $event instanceof Errored) {
            $this->outcome = 'failed';
        } elseif ($event instanceof Skipped || $event instanceof MarkedIncomplete) {
            $this->outcome = 'skipped';
            $reason = $event instanceof Skipped ? $event->message() : $event->throwable()->message();
            $this->write($event->test()->id(), (string) preg_replace('/\s+/', ' ', trim($reason)));
        } elseif ($event instanceof BeforeFirstTestMethodErrored) {
            $this->outcome = 'failed';
            $this->write($event->testClassName(), '');
        } elseif ($event instanceof Finished && $this->outcome !== 'skipped') {
            $this->write($event->test()->id(), '');
        }
    }

    private function write(string $test, string $reason): void
    {
        $line = sprintf("%s\t%.1f\t%s\t%s\n", $this->outcome, microtime(true) - $this->began, $test, $reason);
        file_put_contents($this->file, $line, FILE_APPEND | LOCK_EX);
    }
}
