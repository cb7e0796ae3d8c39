<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\User;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Watch\Alarm;

/** What a person wants to be told of when they do not look at the screen. */
final readonly class Chosen
{
    private const IN_PREFERENCES = 'watching';

    /**
     * @param  list<Alarm>  $byMail
     * @param  int  $handMinutes  how long a hand is wanted before they are told
     * @param  bool  $inBrowser  whether the browser tells of hands wanted
     */
    public function __construct(public array $byMail, public int $handMinutes, public bool $inBrowser)
    {
    }

    public static function of(User $person): self
    {
        $kept = $person->preferences[self::IN_PREFERENCES] ?? null;

        return is_array($kept) ? self::ofFields(Fields::of($kept)) : new self([], 10, false);
    }

    public static function ofFields(Fields $f): self
    {
        $known = array_filter(array_map(Alarm::tryFrom(...), $f->strings('byMail')));

        return new self(array_values($known), $f->int('handMinutes'), $f->bool('inBrowser'));
    }

    public function keep(User $person): void
    {
        $person->update(['preferences' => [self::IN_PREFERENCES => $this->told()] + ($person->preferences ?? [])]);
    }

    /** @return array{byMail: list<string>, handMinutes: int, inBrowser: bool} */
    public function told(): array
    {
        return [
            'byMail' => array_column($this->byMail, 'value'),
            'handMinutes' => $this->handMinutes,
            'inBrowser' => $this->inBrowser,
        ];
    }
}
