<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Device\Answers;
use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Imei;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\Internal\Csv;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Text;
use JadeStep\Core\Version\Version;

/** A batch of devices that are to be taken in, as a table: one line a device. */
final class IntakeCsv
{
    public const COLUMNS = ['serial', 'imei', 'hardwareId', 'modelName', 'version', 'build', 'goal'];

    private const NEEDED = ['version', 'goal'];

    /**
     * @return list<IntakeLine>
     *
     * @throws UnreadableCsv where it is no such table
     */
    public static function read(string $text, Almanac $almanac): array
    {
        $lines = [];
        $seen = [];
        foreach (Csv::read($text, self::COLUMNS, self::NEEDED) as $number => $row) {
            $line = is_string($row)
                ? new IntakeLine($number, array_fill_keys(self::COLUMNS, ''), null, null, [$row])
                : self::line($number, $row, $almanac);
            foreach (['serial', 'imei'] as $column) {
                $name = strtolower($line->cells[$column]);
                if ($name !== '' && isset($seen[$column][$name])) {
                    $line = $line->withFault(
                        "This {$column} stands on line {$seen[$column][$name]} too. Take one of the two out.",
                    );
                }
                $seen[$column][$name] ??= $number;
            }
            $lines[] = $line;
        }

        return $lines;
    }

    /** @param  array<string, string>  $cells */
    private static function line(int $number, array $cells, Almanac $almanac): IntakeLine
    {
        $faults = [];
        $goal = self::tried($faults, static fn (): Goal => GoalText::parse($cells['goal']));
        $version = self::tried($faults, static fn (): Version => GoalText::version($cells['version']));
        $imei = $cells['imei'] === '' ? null : self::tried($faults, static fn (): Imei => Imei::parse($cells['imei']));
        $faults = [...$faults, ...self::naming($cells)];
        $identity = $faults === [] ? self::identity($cells, $imei, $almanac) : null;
        if ($identity?->conflict !== null) {
            $faults[] = $identity->conflict;
        }
        $osLine = $identity === null || $identity->candidates === [] ? null : $identity->candidates[0]->osLine;
        if (
            $osLine !== null
            && $version !== null
            && $cells['build'] !== ''
            && $almanac->build($osLine, $version, $cells['build']) === null
            && self::isKnown($almanac, $osLine, $cells['build'])
        ) {
            $faults[] = "The build {$cells['build']} is not one of version {$version->label()}. Check both.";
        }

        return new IntakeLine(
            $number,
            ['imei' => (string) $imei, 'version' => $version === null ? $cells['version'] : (string) $version] + $cells,
            $goal,
            $identity,
            $faults,
        );
    }

    /**
     * @template T
     *
     * @param  list<string>  $faults  gets what was wrong
     * @param  callable(): T  $read
     * @return T|null
     */
    private static function tried(array &$faults, callable $read): mixed
    {
        try {
            return $read();
        } catch (\InvalidArgumentException $e) {
            $faults[] = $e->getMessage();

            return null;
        }
    }

    /**
     * @param  array<string, string>  $cells
     * @return list<string>
     */
    private static function naming(array $cells): array
    {
        return Text::said([
            $cells['serial'] === '' && $cells['imei'] === ''
                ? 'Neither serial nor IMEI: one of them is needed, so that the device is known when it is '
                    .'plugged in.'
                : '',
            $cells['serial'] === '' || preg_match('/\A[A-Za-z0-9._-]{1,100}\z/', $cells['serial']) === 1
                ? ''
                : 'A serial has letters, digits, dots, dashes and underscores only.',
            $cells['hardwareId'] === '' && $cells['modelName'] === ''
                ? 'Neither hardwareId nor modelName: one of them is needed.'
                : '',
        ]);
    }

    /** @param  array<string, string>  $cells */
    private static function identity(array $cells, ?Imei $imei, Almanac $almanac): Identity
    {
        $answers = new Answers(null, null, $imei);

        return $cells['hardwareId'] === ''
            ? Identity::of($almanac, $cells['modelName'], $answers)
            : Identity::ofHardwareId($almanac, $cells['hardwareId'], $cells['modelName'], $answers);
    }

    private static function isKnown(Almanac $almanac, string $osLine, string $label): bool
    {
        foreach ($almanac->builds($osLine) as $build) {
            if ($build->build === $label) {
                return true;
            }
        }

        return false;
    }
}
