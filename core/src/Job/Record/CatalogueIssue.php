<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** Which issue of a vendor's catalogue is meant. */
final readonly class CatalogueIssue implements Kept
{
    public function __construct(public string $vendor, public \DateTimeImmutable $issuedAt, public bool $vouched)
    {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self($fields->string('vendor'), $fields->time('issuedAt'), $fields->bool('vouched'));
    }

    public function fields(): array
    {
        return ['vendor' => $this->vendor, 'issuedAt' => Rfc3339::format($this->issuedAt), 'vouched' => $this->vouched];
    }
}
