<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Bag\BagName;

final class BagNameRequest extends ActRequest
{
    public const NAME = ['string', 'max:'.BagName::LONGEST, 'not_regex:/[\x00-\x1f\x7f]/'];

    public function rules(): array
    {
        return ['name' => ['required', ...self::NAME]];
    }
}
