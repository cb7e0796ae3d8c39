<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Ports\Http\AllowedAddresses;
use Illuminate\Validation\Rule;
use JadeStep\Core\Watch\Alarm;

/** Another program that is to be told of alarms. */
final class WebhookRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100'],
            'address' => ['required', 'string', 'max:255', new AllowedAddress(AllowedAddresses::ofWebhooks())],
            'alarms' => ['required', 'array', 'min:1', 'max:40'],
            'alarms.*' => [Rule::enum(Alarm::class)],
            'handMinutes' => ['required', 'integer:strict', 'between:0,1440'],
        ];
    }

    /** @return list<Alarm> */
    public function alarms(): array
    {
        return $this->fields()->enums('alarms', Alarm::class);
    }
}
