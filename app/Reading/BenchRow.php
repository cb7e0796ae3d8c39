<?php

declare(strict_types=1);

namespace App\Reading;

/** One bench, as it was last seen. */
final readonly class BenchRow implements \JsonSerializable
{
    /** @param  list<PortRow>  $ports */
    public function __construct(public int $id, public string $name, public bool $linkAnswers, public array $ports)
    {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'link' => $this->linkAnswers ? 'up' : 'silent',
            'ports' => $this->ports,
        ];
    }
}
