<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;
use PhpParser\PrettyPrinter\Standard;

/** The programs that a file of PHP calls: by Process, by PHP's own functions, and by what takes a `$command`. */
final class PhpCalls
{
    /** Functions that take a line of the shell. */
    private const SHELL = ['exec', 'shell_exec', 'system', 'passthru', 'popen'];

    /** What takes a command as a list: functions, and classes or their static methods by the name of the class. */
    private const LISTS = ['proc_open', 'pcntl_exec', 'Process', 'Program', 'PgpMessage'];

    /** @var list<string> */
    private array $called = [];

    /** @var list<string> calls whose program cannot be told from the file */
    private array $untold = [];

    private NodeFinder $finder;

    /** @param  array<Node>  $tree */
    private function __construct(private readonly array $tree)
    {
        $this->finder = new NodeFinder;
    }

    /** @return array{called: list<string>, untold: list<string>} */
    public static function of(string $code): array
    {
        $calls = new self((new ParserFactory)->createForHostVersion()->parse($code) ?? []);
        $calls->read();

        return ['called' => array_values(array_unique($calls->called)), 'untold' => $calls->untold];
    }

    private function read(): void
    {
        $takers = $this->ownTakers();
        foreach ($this->finder->findInstanceOf($this->tree, Expr\CallLike::class) as $call) {
            $name = self::nameOf($call);
            if ($name === null || $call->isFirstClassCallable()) {
                continue;
            }
            $arguments = $call->getArgs();
            if ($call instanceof Expr\FuncCall && in_array($name, self::SHELL, true)) {
                $this->script($arguments[0]->value);
            } elseif (in_array($name, self::LISTS, true) && isset($arguments[0])) {
                $this->command($arguments[0]->value);
            } elseif (isset($takers[$name])) {
                $takers[$name]($arguments);
            }
        }
    }

    private static function nameOf(Expr $call): ?string
    {
        return match (true) {
            $call instanceof Expr\FuncCall && $call->name instanceof Node\Name => $call->name->toString(),
            $call instanceof Expr\New_ && $call->class instanceof Node\Name => $call->class->getLast(),
            $call instanceof Expr\StaticCall && $call->class instanceof Node\Name => match (true) {
                ! $call->name instanceof Node\Identifier || $call->name->name === 'environment' => null,
                in_array($call->class->toString(), ['self', 'static'], true) => $call->name->name,
                default => $call->class->getLast(),
            },
            $call instanceof Expr\MethodCall && $call->name instanceof Node\Identifier => $call->name->name,
            default => null,
        };
    }

    /** @return array<string, \Closure(array<Node\Arg>): void> methods here that take a command, or a script's text */
    private function ownTakers(): array
    {
        $takers = [];
        $item = static fn (Node\Arg $a): Node\ArrayItem => new Node\ArrayItem($a->value, unpack: $a->unpack);
        foreach ($this->finder->findInstanceOf($this->tree, Node\Stmt\ClassMethod::class) as $method) {
            foreach ($method->params as $at => $parameter) {
                $isWords = $parameter->variadic;
                $called = $parameter->var instanceof Expr\Variable ? $parameter->var->name : null;
                $read = match (true) {
                    $called === 'script' => fn (array $given) => $this->script($given[0]->value),
                    $called === 'command' && $isWords => fn (array $given) => $this->command(
                        new Expr\Array_(array_map($item, $given)),
                    ),
                    $called === 'command' => fn (array $given) => $this->command($given[0]->value),
                    default => null,
                };
                $read === null || $takers[$method->name->name] = static function (array $given) use ($read, $at): void {
                    $given = array_slice($given, $at);
                    $given === [] || $read($given);
                };
            }
        }

        return $takers;
    }

    private function command(Expr $given): void
    {
        if ($given instanceof Expr\Variable && is_string($given->name)) {
            $this->variable($given->name);
        } elseif ($given instanceof Expr\MethodCall && $given->name instanceof Node\Identifier) {
            $this->returned($given->name->name);
        } elseif ($given instanceof Expr\FuncCall && self::nameOf($given) === 'array_values') {
            $this->command($given->getArgs()[0]->value);
        } elseif ($given instanceof Expr\Array_) {
            $this->words($given);
        } else {
            $this->untold[] = (new Standard)->prettyPrintExpr($given);
        }
    }

    private function words(Expr\Array_ $given): void
    {
        $first = $given->items[0]->value ?? null;
        if ($given->items[0]->unpack ?? false) {
            $this->command($first); // the words before the last ones

            return;
        }
        if ($first instanceof Expr\Ternary && $first->if !== null) {
            foreach ([$first->if, $first->else] as $either) {
                $this->words(new Expr\Array_([new Node\ArrayItem($either), ...array_slice($given->items, 1)]));
            }

            return;
        }
        $words = array_map(fn (Node\ArrayItem $i): string => $i->unpack ? '-' : $this->text($i->value), $given->items);
        if (($words[0] ?? ShellCalls::UNKNOWN) === ShellCalls::UNKNOWN) {
            $this->untold[] = (new Standard)->prettyPrintExpr($given);

            return;
        }
        $this->called = [...$this->called, ...ShellCalls::programs($words)];
        $at = array_search('-c', $words, true);
        if (in_array($words[0], ['bash', 'sh'], true) && $at !== false && isset($words[$at + 1])) {
            $this->script($given->items[$at + 1]->value);
        }
    }

    /** What a method of this file returns as a command. */
    private function returned(string $method): void
    {
        $made = $this->finder->find(
            $this->tree,
            static fn (Node $n): bool => $n instanceof Node\Stmt\ClassMethod && $n->name->name === $method,
        );
        $returns = $this->finder->findInstanceOf($made, Node\Stmt\Return_::class);
        foreach ($returns as $return) {
            $return->expr instanceof Expr\Array_ && $this->words($return->expr);
        }
        $returns !== [] || $this->untold[] = "{$method}()";
    }

    /** What the file puts into a variable of this name; a method's own `$command` is told by who calls it. */
    private function variable(string $name): void
    {
        $put = $this->finder->find(
            $this->tree,
            static fn (Node $n): bool => $n instanceof Expr\Assign
                && $n->var instanceof Expr\Variable
                && $n->var->name === $name
                && $n->expr instanceof Expr\Array_,
        );
        foreach ($put as $assign) {
            $assign instanceof Expr\Assign && $this->command($assign->expr);
        }
        $put !== [] || $name === 'command' || $this->untold[] = "\${$name}";
    }

    private function script(Expr $given): void
    {
        $text = $this->text($given);
        if (str_starts_with($text, ShellCalls::UNKNOWN)) {
            $given instanceof Expr\Variable || $this->untold[] = (new Standard)->prettyPrintExpr($given);

            return;
        }
        ['called' => $called, 'functions' => $made] = ShellCalls::of($text);
        $this->called = [...$this->called, ...array_diff($called, $made)];
    }

    private function text(Expr $given): string
    {
        return match (true) {
            $given instanceof Node\Scalar\String_ => $given->value,
            $given instanceof Node\Scalar\InterpolatedString => implode('', array_map(
                static fn (Node $p): string => $p instanceof Node\InterpolatedStringPart
                    ? $p->value
                    : ShellCalls::UNKNOWN,
                $given->parts,
            )),
            $given instanceof Expr\BinaryOp\Concat => $this->text($given->left).$this->text($given->right),
            $given instanceof Expr\ConstFetch && $given->name->toString() === 'PHP_BINARY' => 'php',
            $given instanceof Expr\ClassConstFetch && $given->name instanceof Node\Identifier => $this->constant(
                $given->name->name,
            ),
            // base_path('bin/jade') and the like
            $given instanceof Expr\FuncCall && $given->args !== [] => ShellCalls::UNKNOWN
                .(str_contains($inner = $this->text($given->getArgs()[0]->value), '/') ? "/{$inner}" : ''),
            default => ShellCalls::UNKNOWN,
        };
    }

    private function constant(string $name): string
    {
        foreach ($this->finder->findInstanceOf($this->tree, Node\Const_::class) as $const) {
            if ($const->name->name === $name) {
                return $this->text($const->value);
            }
        }

        return ShellCalls::UNKNOWN;
    }
}
