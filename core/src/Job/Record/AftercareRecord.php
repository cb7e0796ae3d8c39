<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Aftercare\AftercareCode;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** People's word for the aftercare, and what the device last showed of it. */
final readonly class AftercareRecord implements Kept
{
    /** @param  array<string, PersonWord>  $words  by aftercare code */
    private function __construct(
        public array $words,
        public ?OwnerLock $ownerLock,
        public ?bool $betaEnrolled,
        public ?\DateTimeImmutable $readAt,
    ) {
    }

    public static function none(): self
    {
        return new self([], null, null, null);
    }

    public function read(?OwnerLock $ownerLock, ?bool $betaEnrolled, \DateTimeImmutable $at): self
    {
        return new self($this->words, $ownerLock, $betaEnrolled, $at);
    }

    public function said(AftercareCode $code, PersonWord $word): self
    {
        return new self([$code->value => $word] + $this->words, $this->ownerLock, $this->betaEnrolled, $this->readAt);
    }

    public function takenBack(AftercareCode $code): self
    {
        return new self(
            array_diff_key($this->words, [$code->value => 1]),
            $this->ownerLock,
            $this->betaEnrolled,
            $this->readAt,
        );
    }

    public function word(AftercareCode $code): ?PersonWord
    {
        return $this->words[$code->value] ?? null;
    }

    public static function ofFields(Fields $fields): self
    {
        $reading = $fields->maybeIn('reading');
        $words = $fields->map('words', static fn (Fields $w): PersonWord => PersonWord::ofFields($w));

        return $reading === null
            ? new self($words, null, null, null)
            : new self(
                $words,
                $reading->maybeEnum('ownerLock', OwnerLock::class),
                $reading->maybeBool('betaEnrolled'),
                $reading->maybeTime('at'),
            );
    }

    public function fields(): array
    {
        $reading = [
            'ownerLock' => $this->ownerLock?->value,
            'betaEnrolled' => $this->betaEnrolled,
            'at' => Rfc3339::formatOrNull($this->readAt),
        ];

        return ['words' => (object) array_map(static fn (PersonWord $w): array => $w->fields(), $this->words)]
            + ($this->readAt === null ? [] : ['reading' => $reading]);
    }
}
