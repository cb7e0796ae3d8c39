<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\Scratch;

/** A set of names that may be more than fit in memory. What is in it cannot be told again, only asked for. */
final class KeySet
{
    public readonly string $table;

    private ?\SQLite3Stmt $add = null;

    private ?\SQLite3Stmt $has = null;

    private ?\SQLite3Stmt $remove = null;

    public function __construct()
    {
        $this->table = Scratch::table('(name BLOB PRIMARY KEY) WITHOUT ROWID');
    }

    public function __destruct()
    {
        Scratch::drop($this->table);
    }

    /** @param  iterable<string>  $names */
    public static function of(iterable $names): self
    {
        $set = new self;
        foreach ($names as $name) {
            $set->add($name);
        }

        return $set;
    }

    /** @return bool whether it is new */
    public function add(string $name): bool
    {
        $this->add ??= Scratch::prepare("INSERT OR IGNORE INTO {$this->table} VALUES (?)");

        return Scratch::run($this->add, [Scratch::name($name)]) === 1;
    }

    public function has(string $name): bool
    {
        $this->has ??= Scratch::prepare("SELECT 1 FROM {$this->table} WHERE name = ?");

        return Scratch::rows($this->has, [Scratch::name($name)]) !== [];
    }

    public function remove(string $name): void
    {
        $this->remove ??= Scratch::prepare("DELETE FROM {$this->table} WHERE name = ?");
        Scratch::run($this->remove, [Scratch::name($name)]);
    }
}
