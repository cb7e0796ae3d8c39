<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Job\Record\AboutDevice;

/** What people note of a device; what is left out is empty. */
final class AboutRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'holder' => ['nullable', 'string', 'max:200'],
            'contact' => ['nullable', 'string', 'max:200'],
            'notes' => ['nullable', 'string', 'max:2000'],
            'box' => ['nullable', 'string', 'max:200'],
        ];
    }

    public function about(): AboutDevice
    {
        return AboutDevice::ofFields($this->fields());
    }
}
