<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\TagLines;

/** What a lowered copy says otherwise than the bag that it was made from, read from both as they lie on the disk. */
final readonly class LoweredDifference
{
    /**
     * @param  list<string>  $removed  lines of the original's description that the copy does not have
     * @param  list<string>  $added  lines of the copy's description that the original does not have
     * @param  list<string>  $own  labels of lines in which the copy tells its own name and where it comes from
     */
    private function __construct(
        public array $removed,
        public array $added,
        public array $own,
        public bool $samePayload,
    ) {
    }

    /** @throws NotABag */
    public static function between(string $original, string $copy): self
    {
        [$had, $has] = [self::lines($original), self::lines($copy)];
        $own = BagDescription::OF_A_COPY;
        $foreign = static fn (string $line): bool => ! in_array(explode(':', $line, 2)[0], $own, true);
        $manifest = static fn (string $bag): string|false => @hash_file('sha256', "{$bag}/".TagFiles::MANIFEST);

        return new self(
            array_values(array_filter(array_diff($had, $has), $foreign)),
            array_values(array_filter(array_diff($has, $had), $foreign)),
            array_values(
                array_map(
                    static fn (string $l): string => explode(':', $l, 2)[0],
                    array_filter(array_diff($has, $had), static fn (string $l): bool => ! $foreign($l)),
                ),
            ),
            $manifest($original) !== false && $manifest($original) === $manifest($copy),
        );
    }

    /** @return list<string> */
    private static function lines(string $bag): array
    {
        $text = @file_get_contents("{$bag}/".TagFiles::INFO);

        return $text === false
            ? throw NotABag::folder(basename($bag))
            : array_map(static fn (array $p): string => "{$p[0]}: {$p[1]}", TagLines::parse($text));
    }
}
