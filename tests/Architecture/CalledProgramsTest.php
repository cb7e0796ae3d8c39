<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Finder\Finder;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** What scripts, the product and tests call is in bin/lib/programs, by which both commands install what is missing. */
final class CalledProgramsTest extends TestCase
{
    public function test_every_program_that_is_called_is_listed_and_every_listed_one_is_called(): void
    {
        $called = self::calledHere();
        $listed = array_merge(...array_column(self::listed(), 'programs'));

        self::assertGreaterThan(60, count($called), 'the code was read');
        self::assertSame([], array_diff_key($called, array_flip($listed)), 'called, and in bin/lib/programs not');
        self::assertSame([], array_diff($listed, array_keys($called)), 'in bin/lib/programs, and called by nobody');
    }

    public function test_each_is_brought_by_the_package_that_is_named_and_what_is_essential_is(): void
    {
        $wrong = [];
        foreach (self::listed() as ['part' => $part, 'package' => $package, 'programs' => $programs]) {
            $files = explode("\n", self::printed('dpkg', '-L', $package));
            if ($part === 'essential') {
                $isEssential = self::printed('dpkg-query', '-W', '-f', '${Essential}${Priority}', $package);
                preg_match('/^yes|required$/', $isEssential) === 1
                    || $wrong[] = "{$package} is not on every Debian.";
            }
            // a newer Node comes from elsewhere; what a part needs that does not run now may not be here; a version of
            // PHP is called by a link of its package's own making
            foreach ($part === 'node' || $files === [''] ? [] : $programs as $program) {
                preg_grep('~/s?bin/'.preg_quote($program, '~').'[\d.]*\z~', $files) !== []
                    || $wrong[] = "{$package} does not bring {$program}.";
            }
        }

        self::assertSame([], $wrong);
    }

    public function test_calls_are_found_wherever_they_hide(): void
    {
        self::assertSame(
            [
                'tac', 'nl', 'comm', 'paste', 'fold', 'env', 'setpriv', 'bc', 'setsid', 'nice', 'rev', 'check', 'dig',
                'tar', 'xz', 'find', 'jq', 'tsort',
            ],
            ShellCalls::of(<<<'SH'
                tac "$1" | nl; words=$(comm a b <(paste c d)) && "${as[@]}" fold x
                A=1 env -u HOME B=2 setpriv --pdeathsig TERM bc
                setsid nice -n 5 rev <x; check 'What it is' dig
                tar -cf x.tar.xz y
                [ -f x ] || { find . -name y -exec jq {} +; }
                "$root/bin/service" web; exec 3<>/dev/null; tool() { tsort; }
                SH)['called'],
        );
        self::assertSame(
            ['called' => ['tac', 'nl', 'comm', 'bash', 'fold', 'bc', 'rev', 'dig'], 'untold' => ['$given']],
            PhpCalls::of(<<<'PHP'
                <?php
                class Calls {
                    private const NAME = 'nl';
                    function all($given, array $more) {
                        new Process(['tac', '-x']);
                        proc_open([self::NAME], [], $pipes);
                        $words = ['comm', ...$more];
                        new Process([...$words, 'x']);
                        new Process(['bash', '-c', "fold {$given} | ".'bc']);
                        exec('rev '.escapeshellarg($given));
                        $this->tell('dig', 'x');
                        new Process([base_path('bin/jade'), 'plan']);
                        new Process($given);
                        array_map('jq', [['uniq', 'x']]);
                    }
                    function tell(string ...$command) { (new Process(array_values($command)))->run(); }
                }
                PHP),
        );
    }

    /** @return array<string, string> by program: a file that calls it */
    private static function calledHere(): array
    {
        $called = [];
        $functions = [];
        $untold = [];
        foreach (self::code() as $file) {
            $text = $file->getContents();
            $name = $file->getRelativePathname();
            if (preg_match('~\A<\?php|\A#!/usr/bin/env php~', $text) === 1) {
                if (preg_match(self::MAY_CALL, $text) !== 1) {
                    continue;
                }
                ['called' => $here, 'untold' => $unknown] = PhpCalls::of($text);
                array_push($untold, ...array_map(static fn (string $call): string => "{$name}: {$call}", $unknown));
            } elseif (preg_match('~\A#!/usr/bin/env bash|\A# shellcheck shell=bash~', $text) === 1) {
                ['called' => $here, 'functions' => $made] = ShellCalls::of($text);
                $functions += array_flip($made);
            } else {
                continue;
            }
            $called += array_fill_keys($here, $name);
        }
        self::assertSame([], $untold, 'which program is called has to be told where it is called');

        return array_diff_key($called, $functions);
    }

    /** Files of PHP that call no program at all are most, and are not taken apart. */
    private const MAY_CALL = '/Process|Program|PgpMessage|_open|popen|exec|system|passthru|[Cc]ommand/';

    private static function code(): Finder
    {
        return (new Finder)
            ->files()
            ->in(array_map(
                static fn (string $folder): string => RunningSystem::root()."/{$folder}",
                ['app', 'bin', 'core', 'database', 'deploy', 'standins', 'tests', '.ci'],
            ))
            ->ignoreDotFiles(false)
            ->notPath('Architecture/CalledProgramsTest.php');
    }

    /** @return list<array{part: string, package: string, programs: list<string>}> */
    private static function listed(): array
    {
        $rows = [];
        foreach (file(RunningSystem::root().'/bin/lib/programs', FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            if ($line !== '' && $line[0] !== '#') {
                [$part, $package, $programs] = preg_split('/ +/', $line, 3) + ['', '', ''];
                $rows[] = [
                    'part' => $part,
                    'package' => $package,
                    'programs' => $programs === '' ? [] : explode(' ', $programs),
                ];
            }
        }

        return $rows;
    }

    private static function printed(string ...$command): string
    {
        $process = new Process(array_values($command));
        $process->run();

        return trim($process->getOutput());
    }
}
