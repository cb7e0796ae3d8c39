<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\Program;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Bag\Internal\Tree;
use JadeStep\Core\Version\Version;

/**
 * Makes a lowered copy: a new bag with the same payload (hard links where the file system allows, else copies), the
 * same payload manifest byte for byte, and the declared version changed. The original is only read.
 */
final class Lowering
{
    private const CARRIED = [TagFiles::MANIFEST, TagFiles::INVENTORY];

    /**
     * @param  string  $id  the new bag's own identifier
     *
     * @throws NotABag|LoweringRefused|WriteFailed
     */
    public static function lower(
        string $from,
        string $into,
        Version $to,
        string $id,
        \DateTimeImmutable $now,
    ): LoweredCopy {
        $from = rtrim($from, '/');
        $into = rtrim($into, '/');
        $original = BagReader::open($from)->description();
        if (! $original->declaredVersion->isAbove($to)) {
            throw LoweringRefused::notLower($original->declaredVersion, $to);
        }
        if (file_exists($into)) {
            throw LoweringRefused::targetExists(basename($into));
        }
        $tags = self::wholeTags($from);
        $work = $into.'.writing';
        Tree::remove($work);
        $linked = self::sharePayload($from, $work);
        $description = $original->lowered($id, $to, $now);
        TagFiles::write(
            $work,
            [TagFiles::INFO => $description->render(self::oxum($from))],
            self::carry($from, $work, $tags),
        );
        Tree::rename($work, $into);

        return new LoweredCopy($description, $original, $linked);
    }

    /** @return array<string, string> the digests of the tag files, each compared */
    private static function wholeTags(string $from): array
    {
        $manifest = Manifest::parse(
            (string) @file_get_contents("{$from}/".TagFiles::TAG_MANIFEST),
            TagFiles::TAG_MANIFEST,
        );
        if (
            $manifest->faults !== []
            || ! isset($manifest->digests[TagFiles::MANIFEST], $manifest->digests[TagFiles::INFO])
        ) {
            throw LoweringRefused::damaged(TagFiles::TAG_MANIFEST.' does not list the manifest and the description');
        }
        foreach ($manifest->digests as $name => $digest) {
            if (@hash_file('sha256', "{$from}/{$name}") !== $digest) {
                throw LoweringRefused::damaged("{$name} is not as it was written");
            }
        }

        return $manifest->digests;
    }

    /** @return int how many files share their bytes with the original */
    private static function sharePayload(string $from, string $work): int
    {
        Tree::makeFolder($work);
        $odd = (string) Program::output([
            'find',
            "{$from}/data",
            '!',
            '-type',
            'f',
            '!',
            '-type',
            'd',
            '-printf',
            '%P',
            '-quit',
        ]);
        if ($odd !== '') {
            throw LoweringRefused::damaged("data/{$odd} is neither file nor folder");
        }
        // coreutils link a hundred thousand files in half the time; where they cannot, one by one, copying if need be
        if (Program::output(['cp', '-al', '--', "{$from}/data", "{$work}/data"]) !== null) {
            return (int) (explode('.', self::oxum($from))[1] ?? 0);
        }
        Tree::remove("{$work}/data");

        return self::share("{$from}/data", "{$work}/data", 'data');
    }

    private static function share(string $from, string $to, string $named): int
    {
        Tree::makeFolder($to);
        $linked = 0;
        foreach (Listing::names($from) as $name) {
            $linked += match (@filetype("{$from}/{$name}")) {
                'file' => self::shareFile("{$from}/{$name}", "{$to}/{$name}", "{$named}/{$name}"),
                'dir' => self::share("{$from}/{$name}", "{$to}/{$name}", "{$named}/{$name}"),
                default => throw LoweringRefused::damaged("{$named}/{$name} is neither file nor folder"),
            };
        }

        return $linked;
    }

    private static function shareFile(string $from, string $to, string $named): int
    {
        if (@link($from, $to)) {
            return 1;
        }

        return @copy($from, $to) ? 0 : throw WriteFailed::at($named);
    }

    /**
     * The tag files that stay as they are share their bytes too.
     *
     * @param  array<string, string>  $tags
     * @return array<string, string>
     */
    private static function carry(string $from, string $work, array $tags): array
    {
        $carried = array_intersect_key($tags, array_flip(self::CARRIED));
        foreach (array_keys($carried) as $name) {
            self::shareFile("{$from}/{$name}", "{$work}/{$name}", $name);
        }

        return $carried;
    }

    private static function oxum(string $from): string
    {
        foreach (TagLines::parse((string) file_get_contents("{$from}/".TagFiles::INFO)) as [$label, $value]) {
            if (strcasecmp($label, 'Payload-Oxum') === 0) {
                return $value;
            }
        }
        throw LoweringRefused::damaged('its description names no Payload-Oxum');
    }
}
