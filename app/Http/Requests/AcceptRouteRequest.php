<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

final class AcceptRouteRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'route' => ['required', 'string', 'max:50'],
            'build' => ['required', 'string', 'max:200'],
            'accept.pairingLost' => ['present', 'array'],
            'accept.pairingLost.*' => ['string', 'max:200'],
            'accept.appsUnavailable' => ['present', 'array'],
            'accept.appsUnavailable.*' => ['string', 'max:200'],
        ];
    }

    /** @return array{pairingLost: list<string>, appsUnavailable: list<string>} */
    public function accepted(): array
    {
        return ['pairingLost' => $this->validated('accept.pairingLost'), 'appsUnavailable' => $this->validated('accept.appsUnavailable')];
    }
}
