<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;

/** An earlier plain bag of a device, whose files a new one may have too instead of fetching the same bytes again. */
final readonly class EarlierBag
{
    /**
     * @param  array<string, string>  $files  where bytes are stored, by their SHA-256
     * @param  int  $atMost  so many names may one file have
     */
    private function __construct(private string $folder, private array $files, private int $atMost)
    {
    }

    /** @return self|null null where the bag does not say what it holds */
    public static function open(string $folder, int $atMost): ?self
    {
        try {
            $items = BagReader::open($folder)->inventory()->items;
        } catch (BagException) {
            return null;
        }
        $files = [];
        foreach ($items as $item) {
            $files[$item->sha256] ??= $item->stored();
        }

        return new self(rtrim($folder, '/'), $files, $atMost);
    }

    /**
     * The file that has the bytes of an item, where it may have one more name.
     *
     * @return string|null its path; null where there is none, or none that looks like it
     */
    public function fileOf(Item $wanted): ?string
    {
        $stored = $this->files[$wanted->sha256] ?? null;
        $file = "{$this->folder}/data/{$stored}";
        $stat = $stored === null ? false : @lstat($file);
        $fits = $stat !== false && is_file($file) && ! is_link($file)
            && $stat['size'] === $wanted->bytes && $stat['nlink'] < $this->atMost;

        return $fits ? $file : null;
    }
}
