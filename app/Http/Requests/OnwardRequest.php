<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Job\Record\AcceptedLosses;

/** The next route from where a device stands: for which goal, which route, what it costs. */
final class OnwardRequest extends GoalRequest
{
    public function rules(): array
    {
        return parent::rules() + (new AcceptRouteRequest)->rules();
    }

    public function accepted(): AcceptedLosses
    {
        return AcceptedLosses::ofFields($this->fields()->in('accept'));
    }
}
