<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A goal in one of its four forms; the situation document's schema judges its content. */
class GoalRequest extends FormRequest
{
    private const FORMS = 'exact,newestInMajor,newestBelow,newestBefore';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'goal' => ['required', 'array:'.self::FORMS, 'size:1'],
            'goal.exact' => ['string', 'max:64'],
            'goal.newestInMajor' => ['integer', 'min:0', 'max:999'],
            'goal.newestBelow' => ['string', 'max:64'],
            'goal.newestBefore' => ['string', 'max:40'],
        ];
    }

    /** @return array<string, int|string> */
    public function goal(): array
    {
        $goal = $this->validated('goal');

        return isset($goal['newestInMajor']) ? ['newestInMajor' => (int) $goal['newestInMajor']] : $goal;
    }
}
