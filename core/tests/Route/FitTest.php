<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Route\Fit;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Whether a device can take a build at all. */
final class FitTest extends TestCase
{
    /** @param  array<string, mixed>  $build  how it differs from one that the device takes */
    #[DataProvider('builds')]
    public function test_a_build_fits_or_says_why_not(array $build, Fit $wanted): void
    {
        $catalogue = CatalogueDocument::parse(json_encode(
            Sample::catalogue([Sample::build('8.7.0', '8G210', [], $build)]),
            JSON_THROW_ON_ERROR,
        ));

        self::assertSame($wanted, Fit::of($catalogue->builds[0], Sample::read(Sample::situation())->device));
    }

    /** @return array<string, array{array<string, mixed>, Fit}> the device runs 9.3 with counter 3 and radio 10 */
    public static function builds(): array
    {
        return [
            'as it is' => [['rollbackIndex' => 3, 'radioLevel' => 12], Fit::Takes],
            'below the counter' => [['rollbackIndex' => 2, 'radioLevel' => 12], Fit::BelowCounter],
            'below the radio' => [['rollbackIndex' => 3, 'radioLevel' => 9], Fit::BelowRadio],
            'in place only, from elsewhere' => [
                ['rollbackIndex' => 3, 'radioLevel' => 12, 'eraseInstall' => false, 'inPlaceFrom' => '<8.0'],
                Fit::NoMove,
            ],
        ];
    }
}
