<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Exception;

use JadeStep\Core\Text;

/** An archive that is not unpacked; nothing of it is kept. */
final class UntrustedArchive extends \RuntimeException implements BagException
{
    private function __construct(public readonly string $reason, string $words)
    {
        parent::__construct($words.' Nothing of it was kept.');
    }

    /** As another process said it. */
    public static function told(string $reason, string $message): self
    {
        return new self($reason, str_replace(' Nothing of it was kept.', '', $message));
    }

    public static function unreadable(): self
    {
        return new self('unreadable', 'This is no ZIP archive, or a damaged one. Fetch it again.');
    }

    public static function notOneFolder(): self
    {
        return new self('not-one-folder', 'The archive must hold one bag as its one top folder.');
    }

    public static function path(string $why): self
    {
        return new self('unsafe-path', $why);
    }

    public static function link(string $name): self
    {
        return new self('link', '"'.Text::safe($name, 120).'" is a link, where only files may be.');
    }

    public static function special(string $name): self
    {
        return new self('special-file', '"'.Text::safe($name, 120).'" is neither file nor folder.');
    }

    public static function encrypted(string $name): self
    {
        return new self(
            'zip-encryption',
            '"'.Text::safe($name, 120).'" is encrypted by the archive itself. Pack the bag without that.',
        );
    }

    public static function twice(string $name): self
    {
        return new self(
            'duplicate',
            '"'
                .Text::safe($name, 120)
                .'" stands in the archive twice, or differs from another by its letters\' case only.',
        );
    }

    public static function entry(string $name): self
    {
        return new self(
            'damaged-entry',
            '"'.Text::safe($name, 120).'" is not as the archive says: its size or checksum is another.',
        );
    }

    public static function tooMany(int $found, int $most): self
    {
        return new self('too-many', "The archive has {$found} entries; at most {$most} are unpacked.");
    }

    public static function tooLarge(int $bytes, int $most): self
    {
        return new self('too-large', "The archive unpacks to {$bytes} bytes; there is room for {$most}.");
    }

    public static function bomb(int $ratio): self
    {
        return new self('bomb', "The archive unpacks to more than {$ratio} times its size.");
    }
}
