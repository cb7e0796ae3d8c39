<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** What came back of one kind. */
final readonly class KindComparison
{
    /**
     * @param  list<Rewritten>  $changed  what differs by design
     * @param  Items  $missing  items of before that are nowhere in after
     * @param  Items  $extra  items of after that were not in before
     */
    public function __construct(
        public string $kind,
        public int $before,
        public int $same,
        public array $changed,
        public Items $missing,
        public Items $extra,
    ) {
    }
}
