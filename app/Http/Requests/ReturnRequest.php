<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\WayBack\Mode;

/**
 * What is put back: a whole backup, the cloud's, none, or chosen kinds on a device that is kept as new; and what of
 * it is accepted by name as less than was promised.
 */
final class ReturnRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'mode' => [
                'required',
                Rule::in([
                    Mode::PutBack->value,
                    Mode::FromCloud->value,
                    Mode::KeepAsNew->value,
                    Mode::PutNothingBack->value,
                ]),
            ],
            'backup' => ['present', 'nullable', 'string', 'max:80'],
            'kinds' => ['nullable', 'array', 'max:20'],
            'kinds.*' => ['distinct', Rule::enum(Kind::class)],
            'accept' => ['nullable', 'array', 'max:20'],
            'accept.*' => ['distinct', Rule::enum(Kind::class)],
        ];
    }

    public function mode(): Mode
    {
        return $this->fields()->enum('mode', Mode::class);
    }
}
