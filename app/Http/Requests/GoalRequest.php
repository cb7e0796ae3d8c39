<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\ValidationException;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Time\Rfc3339;

/** A goal in one of its four forms, versions in any spelling that the product itself shows; or in words. */
class GoalRequest extends ActRequest
{
    private const FORMS = 'exact,newestInMajor,newestBelow,newestBefore,words';

    public function rules(): array
    {
        return [
            'goal' => ['required', 'array:'.self::FORMS, 'size:1'],
            'goal.exact' => ['string', 'max:64'],
            'goal.newestInMajor' => ['integer', 'min:0', 'max:999'],
            'goal.newestBelow' => ['string', 'max:64'],
            'goal.newestBefore' => ['string', 'max:40'],
            'goal.words' => ['string', 'max:100'],
        ];
    }

    public function goal(): Goal
    {
        $goal = $this->fields()->in('goal');
        $form = $goal->keys()[0] ?? '';
        try {
            return match ($form) {
                'exact' => Goal::exact(GoalText::version($goal->string('exact'))),
                'newestInMajor' => Goal::newestInMajor($this->integer('goal.newestInMajor')),
                'newestBelow' => Goal::newestBelow(GoalText::version($goal->string('newestBelow'))),
                'words' => GoalText::parse($goal->string('words')),
                default => Goal::newestBefore(Rfc3339::parse($goal->string('newestBefore'))),
            };
        } catch (\InvalidArgumentException $e) {
            throw ValidationException::withMessages(["goal.{$form}" => $e->getMessage()]);
        }
    }
}
