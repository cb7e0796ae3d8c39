<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Device\Identity;
use JadeStep\Core\Device\Question;

final readonly class IdentityResource implements \JsonSerializable
{
    public function __construct(private Identity $identity)
    {
    }

    public function jsonSerialize(): mixed
    {
        return [
            'candidates' => array_map(
                static fn (Model $m): array => [
                    'hardwareId' => $m->hardwareId,
                    'name' => $m->name,
                    'variant' => $m->variant,
                ],
                $this->identity->candidates,
            ),
            'questions' => array_map(
                static fn (Question $q): array => ['code' => $q->value, 'words' => $q->words()],
                $this->identity->questions,
            ),
            'places' => $this->identity->places,
            'conflict' => $this->identity->conflict,
        ];
    }
}
