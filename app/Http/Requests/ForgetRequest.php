<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Refusal\Refusal;
use JadeStep\Core\Readiness\EraseLine;

/** The serial is typed, as at the erase line: this cannot be had back either. */
final class ForgetRequest extends ActRequest
{
    public function rules(): array
    {
        return ['serial' => ['required', 'string', 'max:100']];
    }

    /** @throws Refusal where another device was named */
    public function assertNames(string $serial): void
    {
        EraseLine::names($this->fields()->string('serial'), $serial)
            || throw Refusal::ofField('serial', 'This is not the serial of the device. Type it as it stands above.');
    }
}
