<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Job\Record\AcceptedLosses;

final class AcceptRouteRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'route' => ['required', 'string', 'max:50'],
            'build' => ['required', 'string', 'max:200'],
            'lookFirst' => ['sometimes', 'boolean'],
            'accept.pairingLost' => ['present', 'array'],
            'accept.pairingLost.*' => ['string', 'max:200'],
            'accept.appsUnavailable' => ['present', 'array'],
            'accept.appsUnavailable.*' => ['string', 'max:200'],
        ];
    }

    public function accepted(): AcceptedLosses
    {
        return AcceptedLosses::ofFields($this->fields()->in('accept'));
    }
}
