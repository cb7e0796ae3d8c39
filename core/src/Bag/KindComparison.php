<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** What came back of one kind. */
final readonly class KindComparison
{
    /**
     * @param  list<Item>  $missing  items of before that are nowhere in after
     * @param  list<Rewritten>  $changed  what differs by design
     * @param  list<Item>  $extra  items of after that were not in before
     */
    public function __construct(
        public string $kind,
        public int $before,
        public int $same,
        public array $changed,
        public array $missing,
        public array $extra,
    ) {
    }
}
