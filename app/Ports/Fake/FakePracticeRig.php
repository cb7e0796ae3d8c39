<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\PracticeRig;
use JadeStep\Core\Exchange\Fields;

/** Keeps what hands were told to do, and shows what a test gives it. */
final class FakePracticeRig implements PracticeRig
{
    /** @var list<string> method, address and path of each hand */
    public array $hands = [];

    public function __construct(private readonly ?Fields $shown = null)
    {
    }

    public function shown(string $address): ?Fields
    {
        return $this->shown;
    }

    public function hand(string $address, string $method, string $path, Fields $body): Fields
    {
        $this->hands[] = "{$method} {$address}{$path}";

        return $body;
    }
}
