<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\LoweringRefused;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Exception\WorkFolderHeld;
use JadeStep\Core\Bag\Exception\WriteFailed;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\ManifestSet;
use JadeStep\Core\Bag\Internal\Nesting;
use JadeStep\Core\Bag\Internal\Program;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Bag\Internal\Tree;
use JadeStep\Core\Bag\Internal\WorkFolder;
use JadeStep\Core\Version\Version;

/**
 * Makes a lowered copy: a new bag with the same payload, the same payload manifests byte for byte, every other tag file
 * and label, and the declared version changed. The original is only read.
 *
 * The payload is the copy's own where the file system clones files; else its files are linked, and share their bytes
 * with the original, which has to be read again before it is trusted; where neither works they are copied. The copy
 * says which it is (`Lowered-Payload`).
 */
final class Lowering
{
    /**
     * @param  string  $id  the new bag's own identifier
     *
     * @throws NotABag|LoweringRefused|WriteFailed|WorkFolderHeld
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
        if (file_exists($into) || is_link($into)) {
            throw LoweringRefused::targetExists(basename($into));
        }
        if (Nesting::isIn($into, $from)) {
            throw LoweringRefused::nested(basename($into));
        }
        $isJudged = false;
        $judge = static function () use ($from, &$isJudged): void {
            $faults = $isJudged ? [] : BagVerifier::structure($from);
            $isJudged = true;
            $faults === [] || throw LoweringRefused::damaged($faults[0]->message());
        };
        if (! is_dir(dirname($into))) {
            $judge(); // else while the files are linked; what is refused leaves nothing behind
        }
        $work = WorkFolder::hold($into, "lowering {$original->id} to {$to} as {$id}");
        try {
            Tree::remove("{$work->path}/bag");
            Tree::makeFolder("{$work->path}/bag");
            $sharing = self::sharePayload($from, "{$work->path}/bag", $judge);
            $description = $original->lowered($id, $to, $now, $sharing);
            self::tagFiles($from, "{$work->path}/bag", $description);
            Tree::rename("{$work->path}/bag", $into);
        } finally {
            $work->remove();
        }

        return new LoweredCopy($description, $original, $sharing === PayloadSharing::Linked ? self::files($from) : 0);
    }

    /** @param  callable(): void  $meanwhile */
    private static function sharePayload(string $from, string $work, callable $meanwhile): PayloadSharing
    {
        foreach (PayloadSharing::cases() as $sharing) {
            $copy = ['cp', ...$sharing->options(), '--'];
            // one file tells whether the file system does it; coreutils do a hundred thousand in half the time
            $tried = Program::output([...$copy, "{$from}/".TagFiles::MANIFEST, "{$work}/tried"]);
            @unlink("{$work}/tried");
            if ($tried !== null && Program::beside([...$copy, "{$from}/data", "{$work}/data"], $meanwhile)) {
                return $sharing;
            }
            Tree::remove("{$work}/data");
        }
        throw WriteFailed::at('data');
    }

    private static function files(string $from): int
    {
        foreach (TagLines::parse((string) file_get_contents("{$from}/".TagFiles::INFO)) as [$label, $value]) {
            if (strcasecmp($label, 'Payload-Oxum') === 0) {
                return (int) (explode('.', $value)[1] ?? 0);
            }
        }

        return iterator_count(Tree::listing("{$from}/data"));
    }

    /** All tag files are the copy's own: the description and the tag manifests written anew, the others copied. */
    private static function tagFiles(string $from, string $to, BagDescription $description): void
    {
        foreach (Tree::listing($from, 'data') as $path => $ignored) {
            Tree::makeFolder(dirname("{$to}/{$path}"));
            @copy("{$from}/{$path}", "{$to}/{$path}") || throw WriteFailed::at($path);
        }
        self::write("{$to}/".TagFiles::INFO, self::described("{$from}/".TagFiles::INFO, $description));
        foreach (ManifestSet::read($from, 'tagmanifest', true)->byAlgorithm as $algorithm => $manifest) {
            $digests = array_map(strval(...), iterator_to_array($manifest->digests->all()));
            $digests[TagFiles::INFO] = (string) Digest::ofFile("{$to}/".TagFiles::INFO, null, $algorithm);
            self::write("{$to}/tagmanifest-{$algorithm}.txt", Manifest::render($digests));
        }
    }

    /** The original's lines, in their order and as they are, with those that tell of the copy in their places. */
    private static function described(string $file, BagDescription $copy): string
    {
        $told = array_column(TagLines::parse($copy->render('')), 1, 0);
        $new = [];
        foreach ([...BagDescription::OF_A_COPY, 'Declared-Version'] as $label) {
            $new[$label] = $told[$label] ?? null;
        }

        return TagLines::with((string) @file_get_contents($file), $new);
    }

    private static function write(string $file, string $text): void
    {
        @chmod($file, 0o644); // as it is copied, a file of a sealed bag cannot be written to
        if (@file_put_contents($file, $text) !== strlen($text)) {
            throw WriteFailed::at(basename($file));
        }
    }
}
