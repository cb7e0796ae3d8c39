<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/** What a route costs that somebody has accepted by name. */
final readonly class AcceptedLosses implements Kept
{
    /**
     * @param  list<string>  $pairingLost  ids of accessories
     * @param  list<string>  $appsUnavailable  ids of apps
     */
    public function __construct(public array $pairingLost, public array $appsUnavailable)
    {
    }

    public static function none(): self
    {
        return new self([], []);
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->strings('pairingLost'), $fields->strings('appsUnavailable'));
    }

    public function fields(): array
    {
        return ['pairingLost' => $this->pairingLost, 'appsUnavailable' => $this->appsUnavailable];
    }
}
