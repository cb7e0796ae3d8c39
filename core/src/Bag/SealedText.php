<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\Scratch;

/**
 * A text that is put together bit by bit and may be more than fits in memory. Where it lies meanwhile, nobody but this
 * process can read it: it may be of an encrypted bag.
 */
final class SealedText
{
    private const PIECE_BYTES = 65_536;

    private const NONCE_BYTES = 16;

    private readonly string $table;

    private readonly string $nonce;

    private readonly \SQLite3Stmt $insert;

    private string $end = '';

    private int $pieces = 0;

    private int $sealed = 0;

    public function __construct()
    {
        $this->table = Scratch::table('(id INTEGER PRIMARY KEY, sealed BLOB)');
        $this->nonce = random_bytes(self::NONCE_BYTES);
        $this->insert = Scratch::prepare("INSERT INTO {$this->table} VALUES (?, ?)");
    }

    public function __destruct()
    {
        Scratch::drop($this->table);
    }

    public function append(string $text): void
    {
        $this->end .= $text;
        if (strlen($this->end) >= self::PIECE_BYTES) {
            Scratch::run($this->insert, [++$this->pieces, $this->seal($this->end, $this->pieces)]);
            $this->sealed += strlen($this->end);
            $this->end = '';
        }
    }

    /** @return int its bytes */
    public function size(): int
    {
        return $this->sealed + strlen($this->end);
    }

    /** @return callable(int): string gives at most so many bytes of it, and an empty text at the end */
    public function reader(): callable
    {
        $left = $this->read();
        $text = '';

        return static function (int $most) use ($left, &$text): string {
            while ($text === '' && $left->valid()) {
                $text = $left->current();
                $left->next();
            }
            $piece = substr($text, 0, $most);
            $text = substr($text, strlen($piece));

            return $piece;
        };
    }

    /** @return \Generator<string> */
    private function read(): \Generator
    {
        $page = Scratch::prepare("SELECT sealed FROM {$this->table} WHERE id = ?");
        for ($number = 1; $number <= $this->pieces; $number++) {
            $sealed = Scratch::rows($page, [$number])[0][0] ?? null;
            yield is_string($sealed) ? $this->seal($sealed, $number) : throw new \LogicException('It was written.');
        }
        yield $this->end;
    }

    /** The same makes it readable again. */
    private function seal(string $text, int $number): string
    {
        return Scratch::sealed($text, $this->nonce.pack('J', $number));
    }
}
