<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Bag;
use App\Models\BenchJob;

/** How a job puts its data back: as its route says, or as somebody has chosen since. */
final readonly class TheReturn
{
    public const WHOLE = 'whole';

    public const AS_NEW = 'as-new';

    /** Nothing is put back yet: the device is looked at first. */
    public const HOLD = 'hold';

    public const CLOUD = 'cloud';

    /**
     * @param  string  $mode  a whole backup is put back, the device is kept as it was set up new, or the return is held
     * @param  string|null  $backup  the bag's id, `cloud`, or null where no backup is put back
     * @param  list<string>  $kinds  what is brought in one by one where the device is kept as new
     * @param  list<array<string, mixed>>  $promise  the ledger, as in a plan document
     * @param  array<string, list<string>>  $losses  as in a plan document
     */
    private function __construct(public string $mode, public ?string $backup, public array $kinds, public array $promise, public array $losses)
    {
    }

    public static function of(BenchJob $job): self
    {
        $chosen = $job->return_choice;
        if ($chosen !== null) {
            return new self($chosen['mode'], $chosen['backup'], $chosen['kinds'], $chosen['promise'], $chosen['losses']);
        }
        $base = $job->route['base'] ?? null;
        $backup = ($base['backup'] ?? null) === 'planned' ? $job->safetyBag()?->id : $base['backup'] ?? null;

        return new self(self::WHOLE, $backup, [], $job->route['kinds'] ?? [], $job->route['losses'] ?? []);
    }

    public function isCloud(): bool
    {
        return $this->mode === self::WHOLE && $this->backup === self::CLOUD;
    }

    /** The bag that is put back whole, where one is. */
    public function base(): ?Bag
    {
        return $this->mode === self::WHOLE && $this->backup !== null && ! $this->isCloud() ? Bag::query()->find($this->backup) : null;
    }

    /** @return list<array<string, mixed>> the fates of the kinds that come from a source */
    public function from(string $source): array
    {
        return array_values(array_filter($this->promise, static fn (array $f): bool => $f['from'] === $source));
    }

    /** @return list<string> all that was named as a cost before */
    public function namedLosses(): array
    {
        return array_merge([], ...array_values($this->losses));
    }
}
