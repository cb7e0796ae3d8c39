<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A few inputs at every door; `bin/measure fuzz` throws tens of thousands. */
final class DoorsTest extends TestCase
{
    use TemporaryFolder;

    private const INPUTS = 40;

    #[DataProvider('doors')]
    public function test_no_input_ends_in_an_error_of_php(string $door): void
    {
        $doors = new Doors($this->folder);
        $broken = [];
        for ($seed = 0; $seed < self::INPUTS; $seed++) {
            $broken[] = $doors->throwAt($door, $seed);
        }

        self::assertSame([], array_values(array_filter($broken)));
    }

    /** @return iterable<string, array{string}> */
    public static function doors(): iterable
    {
        foreach (Doors::names() as $door) {
            yield $door => [$door];
        }
    }
}
