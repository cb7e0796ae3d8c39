<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;

/** People's word for readiness checks, by check. */
final readonly class Attestations implements Kept
{
    /** @param  array<string, PersonWord>  $words  by check code */
    private function __construct(private array $words)
    {
    }

    public static function none(): self
    {
        return new self([]);
    }

    public function with(CheckCode $code, PersonWord $word): self
    {
        return new self([$code->value => $word] + $this->words);
    }

    public function without(CheckCode $code): self
    {
        return new self(array_diff_key($this->words, [$code->value => 1]));
    }

    public function has(CheckCode $code): bool
    {
        return isset($this->words[$code->value]);
    }

    /**
     * @param  list<Check>  $checks
     * @return list<Check>
     */
    public function settle(array $checks): array
    {
        return array_map($this->settled(...), $checks);
    }

    public static function ofFields(Fields $fields): self
    {
        $words = [];
        foreach ($fields->keys() as $code) {
            $words[$code] = PersonWord::ofFields($fields->in($code));
        }

        return new self($words);
    }

    public function fields(): array
    {
        return array_map(static fn (PersonWord $w): array => $w->fields(), $this->words);
    }

    private function settled(Check $check): Check
    {
        $word = $this->words[$check->code->value] ?? null;

        return $word === null ? $check : (new Attestation($check->code, $word->by, $word->at))->settle($check);
    }
}
