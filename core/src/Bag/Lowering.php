<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\Manifest;
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
    public static function lower(string $from, string $into, Version $to, string $id, \DateTimeImmutable $now): LoweredCopy
    {
        $from = rtrim($from, '/');
        $into = rtrim($into, '/');
        $original = BagReader::open($from)->description();
        if (! $original->declaredVersion->isAbove($to)) {
            throw LoweringRefused::notLower($original->declaredVersion, $to);
        }
        if (file_exists($into)) {
            throw LoweringRefused::targetExists(basename($into));
        }
        self::assertTagsAreWhole($from);
        $work = $into.'.writing';
        Tree::remove($work);
        $linked = self::sharePayload($from, $work);
        $description = $original->lowered($id, $to, $now);
        TagFiles::write($work, [TagFiles::INFO => $description->render(self::oxum($from))] + self::carriedTags($from));
        Tree::rename($work, $into);

        return new LoweredCopy($description, $original, $linked);
    }

    private static function assertTagsAreWhole(string $from): void
    {
        $manifest = Manifest::parse((string) @file_get_contents("{$from}/".TagFiles::TAG_MANIFEST), TagFiles::TAG_MANIFEST);
        if ($manifest->faults !== [] || ! isset($manifest->digests[TagFiles::MANIFEST], $manifest->digests[TagFiles::INFO])) {
            throw LoweringRefused::damaged(TagFiles::TAG_MANIFEST.' does not list the manifest and the description');
        }
        foreach ($manifest->digests as $name => $digest) {
            if (@hash_file('sha256', "{$from}/{$name}") !== $digest) {
                throw LoweringRefused::damaged("{$name} is not as it was written");
            }
        }
    }

    /** @return int how many files share their bytes with the original */
    private static function sharePayload(string $from, string $work): int
    {
        Tree::makeFolder("{$work}/data");
        $linked = 0;
        $made = [];
        foreach (Tree::files("{$from}/data") as $path => $info) {
            if ($info->isLink()) {
                throw LoweringRefused::damaged("data/{$path} is a link");
            }
            $file = "{$work}/data/{$path}";
            if (! isset($made[dirname($file)])) {
                Tree::makeFolder(dirname($file));
                $made[dirname($file)] = true;
            }
            if (@link($info->getPathname(), $file)) {
                $linked++;
            } elseif (! @copy($info->getPathname(), $file)) {
                throw WriteFailed::at("data/{$path}");
            }
        }

        return $linked;
    }

    /** @return array<string, string> */
    private static function carriedTags(string $from): array
    {
        $texts = [];
        foreach (self::CARRIED as $name) {
            if (is_file("{$from}/{$name}")) {
                $texts[$name] = (string) file_get_contents("{$from}/{$name}");
            }
        }

        return $texts;
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
