<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Text;

/** Which models a device that is not plugged in may be, and what would settle it. */
final readonly class Identity
{
    /**
     * @param  list<Model>  $candidates
     * @param  list<Question>  $questions  the best first
     * @param  list<string>  $places  the answers to where it was bought
     * @param  string|null  $conflict  what does not fit together, in words; then no candidate is left
     */
    private function __construct(
        public array $candidates,
        public array $questions,
        public array $places,
        public ?string $conflict,
    ) {
    }

    /** @param  string  $name  on the box; empty where only the IMEI is known */
    public static function of(Almanac $almanac, string $name, Answers $answers): self
    {
        $named = $name === '' ? $almanac->models() : $almanac->modelsNamed($name);
        if ($named === []) {
            return self::conflict(
                'No vendor here has a model of the name '
                    .Text::safe($name, 40)
                    .'. Check the name, or refresh the almanac.',
            );
        }
        $left = $named;
        foreach ($answers->given() as $question) {
            $fitting = $answers->narrow($question, $left);
            if ($fitting === []) {
                return self::unfit($almanac, $question, $answers, $left);
            }
            $left = $fitting;
        }

        return new self($left, Question::rank($left, $answers->given()), self::placesOf($left), null);
    }

    /** Where somebody has read the hardware id off: what else was said must fit it. */
    public static function ofHardwareId(Almanac $almanac, string $hardwareId, string $name, Answers $answers): self
    {
        $model = $almanac->model($hardwareId);
        if ($model === null) {
            return self::conflict(
                'No vendor here has a model of the hardware id '
                    .Text::safe($hardwareId, 40)
                    .'. Check it, or refresh the almanac.',
            );
        }
        if ($name !== '' && mb_strtolower($name) !== mb_strtolower($model->name)) {
            return self::conflict(
                "{$hardwareId} is {$model->name} {$model->variant}, not ".Text::safe($name, 40).'. Check both.',
            );
        }
        foreach ($answers->given() as $question) {
            if ($answers->narrow($question, [$model]) === []) {
                return self::unfit($almanac, $question, $answers, [$model]);
            }
        }

        return new self([$model], [], [], null);
    }

    public function isResolved(): bool
    {
        return count($this->candidates) === 1;
    }

    /** The one model that is left. */
    public function model(): ?Model
    {
        return $this->isResolved() ? $this->candidates[0] : null;
    }

    /** @param  list<Model>  $left  before the answer that rules them all out */
    private static function unfit(Almanac $almanac, Question $question, Answers $answers, array $left): self
    {
        $names = implode(', ', array_map(static fn (Model $m): string => "{$m->name} {$m->variant}", $left));
        if ($question !== Question::Imei || $answers->imei === null) {
            return self::conflict(
                "The answer to \"{$question->words()}\" fits none of {$names}. Ask again, or plug the device in.",
            );
        }
        $tac = $answers->imei->tac();
        $owners = array_filter($almanac->models(), static fn (Model $m): bool => in_array($tac, $m->tac, true));

        return self::conflict(
            $owners === []
                ? "No vendor here knows the type allocation code {$tac} of this IMEI, and it is none of {$names}."
                : 'By its IMEI the device is '
                    .implode(
                        ' or ',
                        array_map(
                            static fn (Model $m): string => "{$m->name} {$m->variant} ({$m->hardwareId})",
                            $owners,
                        ),
                    )
                    .", not {$names}.",
        );
    }

    private static function conflict(string $words): self
    {
        return new self([], [Question::PlugIn], [], $words);
    }

    /**
     * @param  list<Model>  $models
     * @return list<string>
     */
    private static function placesOf(array $models): array
    {
        $places = array_unique(array_merge(...array_map(static fn (Model $m): array => $m->sold->where, $models)));
        sort($places);

        return $places;
    }
}
