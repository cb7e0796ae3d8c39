<?php

declare(strict_types=1);

namespace Tests\Architecture;

use Symfony\Component\Process\Process;

/** The programs that a script of the shell calls, read from its syntax tree, which shfmt (Debian's) makes. */
final readonly class ShellCalls
{
    /** Each runs the command that its own words end with; the options that take a word of their own. */
    private const CARRIERS = [
        'exec' => [],
        'command' => [],
        'sudo' => [],
        'env' => ['-u'],
        'setsid' => [],
        'nice' => ['-n'],
        'ionice' => ['-c'],
        'setpriv' => ['--pdeathsig'],
        'xargs' => ['-n', '-I', '-P'],
        'flock' => [],
        'timeout' => [],
        'chroot' => [],
    ];

    /** Of our own scripts: which of the words that they are given is a program, from 1 on. */
    private const OURS = ['check' => 2, 'as_owner' => 1, 'run_as' => 2, 'as_service' => 1, 'start_nothing' => 1];

    /** Stands for what is known only when it runs. */
    public const UNKNOWN = 'UNKNOWN';

    private const BUILT_IN = [
        '.', ':', '[', 'break', 'cd', 'continue', 'disown', 'echo', 'eval', 'exit', 'export', 'false', 'getopts',
        'jobs', 'kill', 'mapfile', 'printf', 'pwd', 'read', 'return', 'set', 'shift', 'test', 'trap', 'true', 'type',
        'umask', 'unset', 'wait',
    ];

    /**
     * @return array{called: list<string>, functions: list<string>} programs, and the functions that it makes itself
     *
     * @throws \RuntimeException where it is no script that can be read
     */
    public static function of(string $text): array
    {
        $parser = new Process(['shfmt', '-tojson', '-ln', 'bash'], null, null, $text, 30);
        $parser->run();
        $parser->isSuccessful() || throw new \RuntimeException('No script: '.$parser->getErrorOutput());
        $tree = json_decode($parser->getOutput(), true, 1024, JSON_THROW_ON_ERROR);
        [$commands, $functions] = [[], []];
        self::walk($tree, $commands, $functions);

        return [
            'called' => array_values(array_unique(array_merge(...array_map(self::programs(...), $commands)))),
            'functions' => $functions,
        ];
    }

    /**
     * The programs of one command: the first, and those that it runs in its turn. What the shell has itself and the
     * checkout's own scripts are left out.
     *
     * @param  list<string>  $words
     * @return list<string>
     */
    public static function programs(array $words): array
    {
        while ($words !== [] && ($words[0] === self::UNKNOWN || preg_match('/\A-|=/', $words[0]) === 1)) {
            array_shift($words); // "${as[@]}" is sudo or nothing; A=b is a setting
        }
        $first = array_shift($words);
        if ($first === null) {
            return [];
        }
        $name = str_starts_with($first, '/usr/') ? basename($first) : $first;
        $inner = match (true) {
            $first === 'find' => self::afterExec($words),
            isset(self::OURS[$first]) => array_slice($words, self::OURS[$first] - 1),
            isset(self::CARRIERS[$first]) => self::carried($words, self::CARRIERS[$first]),
            default => [],
        };
        $isProgram = ! in_array($name, [...self::BUILT_IN, 'exec', 'command'], true)
            && preg_match('~/|'.self::UNKNOWN.'~', $name) !== 1;

        return [
            ...($isProgram ? [$name] : []),
            ...self::implied($name, $words),
            ...($inner === [] ? [] : self::programs($inner)),
        ];
    }

    /**
     * What a program calls by itself: tar what it packs with, script the line that it plays a terminal to.
     *
     * @param  list<string>  $words
     * @return list<string>
     */
    private static function implied(string $name, array $words): array
    {
        $lines = preg_grep('~\A-|\A/dev/~', $words, PREG_GREP_INVERT) ?: [];

        return match ($name) {
            'tar' => preg_grep('/\.xz\z|\A-[a-z]*J/', $words) !== [] ? ['xz'] : [],
            'script' => array_merge(...array_map(static fn (string $l): array => self::of($l)['called'], $lines)),
            default => [],
        };
    }

    /**
     * @param  list<string>  $words
     * @return list<string>
     */
    private static function afterExec(array $words): array
    {
        $at = array_search('-exec', $words, true);

        return $at === false ? [] : array_slice($words, (int) $at + 1);
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $taking  options that take a word
     * @return list<string>
     */
    private static function carried(array $words, array $taking): array
    {
        while ($words !== []) {
            $word = $words[0];
            if (in_array($word, $taking, true)) {
                array_shift($words);
            } elseif ($word !== '' && preg_match('/\A[-\d]|=/', $word) !== 1) {
                return $words;
            }
            array_shift($words);
        }

        return [];
    }

    /**
     * @param  array<mixed>  $node
     * @param  list<list<string>>  $commands
     * @param  list<string>  $functions
     */
    private static function walk(array $node, array &$commands, array &$functions): void
    {
        $type = $node['Type'] ?? null;
        if ($type === 'CallExpr' && ($node['Args'] ?? []) !== []) {
            $commands[] = array_map(self::word(...), array_values($node['Args']));
        } elseif ($type === 'FuncDecl') {
            $functions[] = (string) $node['Name']['Value'];
        }
        foreach ($node as $part) {
            is_array($part) && self::walk($part, $commands, $functions);
        }
    }

    /** @param  array<string, mixed>  $word */
    private static function word(array $word): string
    {
        $text = '';
        foreach ($word['Parts'] ?? [] as $part) {
            $text .= match ($part['Type']) {
                'Lit', 'SglQuoted' => $part['Value'] ?? '',
                'DblQuoted' => self::word($part),
                default => self::UNKNOWN,
            };
        }

        return $text;
    }
}
