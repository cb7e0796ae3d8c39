<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Tests\Support\RandomSituations;
use PHPUnit\Framework\TestCase;

/** The search against an exhaustive enumeration; `bin/measure agreement` holds as many situations as one likes. */
final class SearchAgreementTest extends TestCase
{
    private const SITUATIONS = 1200;

    public function test_the_search_finds_what_the_enumeration_finds(): void
    {
        $runs = new AgreementRuns(new RandomSituations(20_261_120));
        for ($i = 0; $i < self::SITUATIONS; $i++) {
            $runs->one();
        }
        $seen = $runs->seen();

        self::assertSame([], $runs->differing());
        // the random situations are worth something only where they reach the corners
        self::assertGreaterThan(20, min($seen), json_encode($seen, JSON_THROW_ON_ERROR));
    }
}
