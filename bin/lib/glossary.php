<?php

/** Writes the glossary to standard output: `php bin/lib/glossary.php > docs/glossary.md`. */

declare(strict_types=1);

use JadeStep\Core\Term;

require_once __DIR__.'/../../vendor/autoload.php';

$terms = Term::cases();
usort($terms, static fn (Term $a, Term $b): int => $a->label() <=> $b->label());
echo "# Glossary\n\nThe terms of the trade as the screens explain them. Written by bin/lib/glossary.php from\n",
"`core/src/Term.php`: change them there.\n";
foreach ($terms as $term) {
    echo "\n**{$term->label()}**  \n", wordwrap($term->means(), 116), "\n";
}
