<?php

declare(strict_types=1);

namespace Standins\Rig;

/** As many more phones of the ferry company as are wanted (`RIG_FLEET`), made by a seed: the same ones each time. */
final class Fleet
{
    private const FIRST_PORT = 21;

    private const SEED = 7;

    private const MODELS = [
        ['hardwareId' => 'FN7-2', 'modelName' => 'Fenn 7'],
        ['hardwareId' => 'FN7-1', 'modelName' => 'Fenn 7'],
        ['hardwareId' => 'FN6-1', 'modelName' => 'Fenn 6'],
    ];

    /** @return list<array<string, mixed>> what each differs in from a usual phone */
    public static function phones(int $many): array
    {
        $dice = new Dice(self::SEED);
        $phones = [];
        for ($i = 0; $i < $many; $i++) {
            $phones[] = self::MODELS[intdiv($dice->next(1000), 334)] + [
                'serial' => self::serial($i),
                'imei' => null,
                'port' => (string) (self::FIRST_PORT + $i),
                'photoCount' => 20 + $dice->next(40),
                'batteryPercent' => 55 + $dice->next(45),
                'note' => 'One of the fleet.',
            ];
        }

        return $phones;
    }

    public static function serial(int $number): string
    {
        return sprintf('SKF-%04d', $number + 1);
    }
}
