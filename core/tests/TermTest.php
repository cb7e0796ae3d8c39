<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests;

use JadeStep\Core\Term;
use PHPUnit\Framework\TestCase;

/** The terms of the trade: common practice, no source. */
final class TermTest extends TestCase
{
    public function test_each_term_has_a_name_of_its_own_and_says_what_it_means_in_a_sentence(): void
    {
        $names = array_map(static fn (Term $t): string => $t->label(), Term::cases());
        self::assertSame($names, array_values(array_unique($names)));
        foreach (Term::cases() as $term) {
            self::assertMatchesRegularExpression('/^[A-Z].{20,}\.$/su', $term->means(), $term->value);
        }
        self::assertSame('written out', Term::SideExport->label());
        self::assertSame('erase line', Term::EraseLine->label());
    }

    public function test_the_glossary_says_the_same(): void
    {
        ob_start();
        require __DIR__.'/../../bin/lib/glossary.php';
        self::assertStringEqualsFile(
            __DIR__.'/../../docs/glossary.md',
            (string) ob_get_clean(),
            'php bin/lib/glossary.php > docs/glossary.md writes it anew.',
        );
    }
}
