<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** What changed in the almanac since somebody looked at the job. */
final readonly class AlmanacFlag implements Kept
{
    private const WORDS_KEPT = 8;

    /** @param  list<string>  $words */
    public function __construct(public \DateTimeImmutable $at, public array $words)
    {
    }

    /** @param  list<string>  $words  unseen ones of an earlier change stay until somebody has looked */
    public static function adding(?self $before, array $words, \DateTimeImmutable $at): self
    {
        $all = array_values(array_unique([...($before === null ? [] : $before->words), ...$words]));

        return new self($at, array_slice($all, -self::WORDS_KEPT));
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->time('at'), $fields->strings('words'));
    }

    public function fields(): array
    {
        return ['at' => Rfc3339::format($this->at), 'words' => $this->words];
    }
}
