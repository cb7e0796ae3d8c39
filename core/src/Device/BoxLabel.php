<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Model;

/** What stands on a device's box, held against the device itself: a device may lie in a box that is not its own. */
final class BoxLabel
{
    /** @return string|null what does not fit, in words; null where it fits, or where nothing here is called so */
    public static function contradiction(string $label, Device $device, Almanac $almanac): ?string
    {
        $meant = self::meant($label, $almanac);
        $own = $almanac->model((string) $device->hardwareId);
        $ids = array_map(static fn (Model $m): string => $m->hardwareId, $meant);
        if ($meant === [] || $own === null || in_array($own->hardwareId, $ids, true)) {
            return null;
        }

        return 'The box says '
            .implode(' or ', array_map(static fn (Model $m): string => $m->label(), $meant))
            .", the device says {$own->label()}. The device is right: plan by it.";
    }

    /** @return list<Model> those that the label may mean: by hardware id, else by the longest name and the variant */
    private static function meant(string $label, Almanac $almanac): array
    {
        $words = self::words($label);
        $byId = array_filter(
            $almanac->models(),
            static fn (Model $m): bool => self::has($words, self::words($m->hardwareId)),
        );
        $named = array_filter(
            $almanac->models(),
            static fn (Model $m): bool => self::has($words, self::words($m->name)),
        );
        $longest = max([0, ...array_map(static fn (Model $m): int => count(self::words($m->name)), $named)]);
        $named = array_filter($named, static fn (Model $m): bool => count(self::words($m->name)) === $longest);
        $variant = array_filter($named, static fn (Model $m): bool => self::has($words, self::words($m->variant)));

        return array_values($byId !== [] ? $byId : ($variant !== [] ? $variant : $named));
    }

    /** @return list<string> */
    private static function words(string $text): array
    {
        $words = preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY);

        return $words === false ? [] : $words;
    }

    /**
     * @param  list<string>  $words
     * @param  list<string>  $wanted
     */
    private static function has(array $words, array $wanted): bool
    {
        for ($i = 0, $last = count($words) - count($wanted); $i <= $last; $i++) {
            if ($wanted !== [] && array_slice($words, $i, count($wanted)) === $wanted) {
                return true;
            }
        }

        return false;
    }
}
