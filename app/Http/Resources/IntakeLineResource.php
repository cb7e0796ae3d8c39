<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Exchange\IntakeLine;

final readonly class IntakeLineResource implements \JsonSerializable
{
    public function __construct(private IntakeLine $line)
    {
    }

    public function jsonSerialize(): mixed
    {
        $l = $this->line;

        return [
            'line' => $l->line,
            'serial' => $l->cells['serial'],
            'imei' => $l->cells['imei'],
            'version' => $l->cells['version'],
            'build' => $l->cells['build'],
            'model' => $l->cells['modelName'] === '' ? $l->cells['hardwareId'] : $l->cells['modelName'],
            'goal' => $l->goal === null ? null : GoalText::words($l->goal),
            'identity' => $l->identity === null ? null : new IdentityResource($l->identity),
            'faults' => $l->faults,
        ];
    }
}
