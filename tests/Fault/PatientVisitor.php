<?php

declare(strict_types=1);

namespace Tests\Fault;

use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

/** Asks the application until it answers, and starts again what has ended meanwhile. */
final readonly class PatientVisitor
{
    private const TRIES = 60;

    private function __construct(private RunningSystem $system, public Visitor $visitor)
    {
    }

    public static function signIn(RunningSystem $system, string $email = 'bench@skerry.example'): self
    {
        return new self($system, Visitor::signIn($system->address(), $email));
    }

    /** With somebody who is signed in already, elsewhere than at this instance's own address. */
    public static function of(RunningSystem $system, Visitor $visitor): self
    {
        return new self($system, $visitor);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    public function ask(string $method, string $path, array $body = []): array
    {
        for ($try = 0; ; $try++) {
            try {
                return $this->visitor->ask($method, $path, $body);
            } catch (\Throwable $e) {
                $try < self::TRIES || throw $e;
                $this->system->revive();
                usleep(250_000);
            }
        }
    }

    /**
     * Tries once: the screen is looked at again in a moment.
     *
     * @param  array<string, mixed>  $body
     * @return int the status, 500 where nothing answered
     */
    public function send(string $method, string $path, array $body = []): int
    {
        try {
            return $this->visitor->send($method, $path, $body)->getStatusCode();
        } catch (\Throwable) {
            return 500;
        }
    }
}
