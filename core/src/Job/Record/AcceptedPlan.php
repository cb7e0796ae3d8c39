<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Time\Rfc3339;

/** The plan as it was accepted, with the issue of the catalogue that it rests on. */
final readonly class AcceptedPlan implements Kept
{
    public function __construct(
        public Plan $plan,
        public ?CatalogueIssue $catalogue,
        public \DateTimeImmutable $at,
        public string $by,
    ) {
    }

    public static function ofFields(Fields $fields): self
    {
        $catalogue = $fields->maybeIn('catalogue');

        return new self(
            PlanDocument::read($fields->in('plan')), $catalogue === null ? null : CatalogueIssue::ofFields($catalogue),
            $fields->time('at'), $fields->string('by'),
        );
    }

    public function fields(): array
    {
        return ['plan' => PlanDocument::write($this->plan)] + $this->about();
    }

    /** @return array<string, mixed> when and by whom it was accepted, and what it rests on */
    public function about(): array
    {
        return ['catalogue' => $this->catalogue?->fields(), 'at' => Rfc3339::format($this->at), 'by' => $this->by];
    }
}
