<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Setting;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** When the instance's own backup was last made. Whoever never made one is told so on the page, and not by mail. */
final readonly class OwnBackups
{
    private const NAME = 'own-backup';

    private const OLD_HOURS = 50;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function noteMade(): void
    {
        Setting::query()->updateOrCreate(
            ['name' => self::NAME],
            ['value' => Fields::of(['madeAt' => Rfc3339::format($this->clock->now())])],
        );
    }

    public function last(): ?\DateTimeImmutable
    {
        return Setting::query()->find(self::NAME)?->value->time('madeAt');
    }

    /** @return string|null how old it is, in words; null where it is young enough, or where there never was one */
    public function isOld(): ?string
    {
        $last = $this->last();
        $hours = $last === null ? 0 : ($this->clock->now()->getTimestamp() - $last->getTimestamp()) / 3600;

        return $hours > self::OLD_HOURS ? 'It was last made '.round($hours / 24).' days ago.' : null;
    }
}
