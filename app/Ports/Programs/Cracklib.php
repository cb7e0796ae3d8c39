<?php

declare(strict_types=1);

namespace App\Ports\Programs;

use App\Ports\WeakPasswords;
use Symfony\Component\Process\Process;

/** Debian's cracklib, with the dictionary of the machine. The password goes through a pipe. */
final class Cracklib implements WeakPasswords
{
    private const PROGRAM = '/usr/sbin/cracklib-check';

    public function why(#[\SensitiveParameter] string $password): ?string
    {
        $process = new Process([self::PROGRAM], null, ['LC_ALL' => 'C.UTF-8'], "{$password}\n", 10);
        $process->run();
        $answer = trim($process->getOutput());
        if (! $process->isSuccessful() || ! str_starts_with($answer, "{$password}: ")) {
            throw new \RuntimeException('cracklib-check did not answer; the package cracklib-runtime has it.');
        }
        $word = substr($answer, strlen($password) + 2);

        return $word === 'OK' ? null : $word;
    }
}
