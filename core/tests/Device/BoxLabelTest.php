<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Device;

use JadeStep\Core\Device\BoxLabel;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class BoxLabelTest extends TestCase
{
    /** @param  bool  $fits  what a device with the hardware id FN7-2 makes of it */
    #[DataProvider('labels')]
    public function test_a_box_is_held_against_the_device(string $label, bool $fits): void
    {
        $almanac = Sample::almanac(Sample::catalogue([], ['models' => [
            self::model('FN7-1', 'Fenn 7', 'Nordic'),
            self::model('FN7-2', 'Fenn 7', 'Atlantic'),
            self::model('FN7L-1', 'Fenn 7 Long', 'Nordic'),
        ]]));
        $device = Sample::read(Sample::situation(['hardwareId' => 'FN7-2']))->device;

        $said = BoxLabel::contradiction($label, $device, $almanac);
        $fits
            ? self::assertNull($said)
            : self::assertStringEndsWith(
                'the device says Fenn 7 Atlantic (FN7-2). The device is right: plan by it.',
                (string) $said,
            );
    }

    /** @return iterable<string, array{string, bool}> */
    public static function labels(): iterable
    {
        yield 'the same' => ['Fenn 7 Atlantic', true];
        yield 'in another spelling' => ['FENN 7, atlantic. 64 GB', true];
        yield 'by hardware id' => ['Model: FN7-2', true];
        yield 'without a variant' => ['Fenn 7', true];
        yield 'another variant' => ['Fenn 7, Nordic', false];
        yield 'another hardware id' => ['fn7-1', false];
        yield 'a longer name' => ['Fenn 7 Long', false];
        yield 'a name that nobody here knows' => ['Gull 3', true];
        yield 'nothing' => [' ', true];
    }

    /** @return array<string, mixed> */
    private static function model(string $id, string $name, string $variant): array
    {
        return [
            'hardwareId' => $id,
            'name' => $name,
            'variant' => $variant,
            'form' => 'phone',
            'osLine' => 'tarn',
            'tac' => [],
            'recoverySequence' => [],
            'sold' => ['where' => [], 'carrierTied' => false],
        ];
    }
}
