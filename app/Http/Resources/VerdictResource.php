<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Job\Verdict;

/** What is said of a device when before and after have been compared. */
final readonly class VerdictResource implements \JsonSerializable
{
    public function __construct(private Verdict $verdict)
    {
    }

    public function jsonSerialize(): mixed
    {
        $v = $this->verdict;

        return [
            'code' => $v->code->value,
            'label' => $v->code->label(),
            'words' => $v->words(),
            'byHand' => array_column($v->byHand, 'value'),
            'named' => $v->named,
            'namedLater' => $v->namedLater,
            'unnamed' => $v->unnamed,
            'unnamedKinds' => array_column($v->unnamedKinds, 'value'),
            'unnamedItems' => $v->unnamedItems,
        ];
    }
}
