<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** The next route from where a device stands: for which goal, which route, what it costs. */
final class OnwardRequest extends GoalRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return parent::rules() + (new AcceptRouteRequest)->rules();
    }

    /** @return array{pairingLost: list<string>, appsUnavailable: list<string>} */
    public function accepted(): array
    {
        return ['pairingLost' => $this->validated('accept.pairingLost') ?? [], 'appsUnavailable' => $this->validated('accept.appsUnavailable') ?? []];
    }
}
