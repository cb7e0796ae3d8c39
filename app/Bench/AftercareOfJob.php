<?php

declare(strict_types=1);

namespace App\Bench;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\BenchJob;
use JadeStep\Core\Aftercare\Aftercare;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Device\App;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Exchange\PlanFates;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** The aftercare of a job, with the last reading of the device and people's word. */
final readonly class AftercareOfJob
{
    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac, private ClockInterface $clock)
    {
    }

    /** @return list<AftercareItem> empty before the device runs what it was taken to */
    public function of(BenchJob $job): array
    {
        $runs = $this->runs($job);
        if ($runs === null || $job->proof === null) {
            return [];
        }
        $situation = $this->situation->pastLine($job, $job->goal ?? [], null);
        $reading = $job->aftercare['reading'] ?? [];
        $losses = Losses::of(PlanFates::read(TheReturn::of($job)->promise), $situation->device, $this->almanac->almanac(), $runs->version);
        $items = Aftercare::of(
            $situation->device, $losses, $runs, $situation->goal, self::steppedUp($job), $this->almanac->almanac(),
            isset($reading['ownerLock']) ? OwnerLock::from($reading['ownerLock']) : null, $reading['betaEnrolled'] ?? null,
            $this->signIns($situation, $runs), $this->shelf($job), $this->sealedNewer($job), $this->clock->now(),
        );
        $words = $job->aftercare['words'] ?? [];

        return array_map(static fn (AftercareItem $i): AftercareItem => isset($words[$i->code->value]) ? $i->attested($words[$i->code->value]['by'], Rfc3339::parse($words[$i->code->value]['at'])) : $i, $items);
    }

    /**
     * @param  list<AftercareItem>  $items
     * @return list<array<string, mixed>>
     */
    public static function told(array $items): array
    {
        return array_map(static fn (AftercareItem $i): array => [
            'code' => $i->code->value, 'words' => $i->code->words(), 'state' => $i->state->value, 'toDo' => $i->code->isToDo(), 'names' => $i->names, 'by' => $i->by, 'at' => Rfc3339::formatOrNull($i->at),
        ], $items);
    }

    private function runs(BenchJob $job): ?Build
    {
        $after = $job->proof['after'] ?? null;

        return $after === null ? null : $this->almanac->almanac()->build((string) ($job->device['osLine'] ?? ''), Version::parse($after['version']), $after['build']);
    }

    /** Whether the last leg was an update in place, after an install. */
    private static function steppedUp(BenchJob $job): bool
    {
        $legs = $job->route['legs'] ?? [];

        return count($legs) > 1 && $legs[count($legs) - 1]['move'] === 'in-place-update';
    }

    /** @return list<string> */
    private function signIns(Situation $situation, Build $runs): array
    {
        $names = array_map(static fn (App $a): string => $a->name, array_filter($situation->device->apps, static fn (App $a): bool => ! $a->minimumOs->isAbove($runs->version)));

        return [...array_values($names), 'bank and mail'];
    }

    /** @return list<string> */
    private function shelf(BenchJob $job): array
    {
        return array_values(Bag::query()->where('serial', $job->serial)->where('lowered_from', null)->get()->filter(static fn (Bag $b): bool => $b->state->proven())->map(self::kept(...))->all());
    }

    private function sealedNewer(BenchJob $job): ?string
    {
        $own = $job->safetyBag();
        $newer = $own?->state === BagState::Sealed && Version::parse($own->made_on)->isAbove(Version::parse($job->proof['after']['version'] ?? $own->made_on));

        return $newer ? self::kept($own) : null;
    }

    private static function kept(Bag $b): string
    {
        $until = $b->keep_until === null ? 'until it is deleted' : 'until '.$b->keep_until->format('j M Y');

        return 'Backup of '.$b->taken_at->format('j M Y, H:i').' UTC from '.Version::parse($b->made_on)->label().($b->encryption === Encryption::OpenPgp ? ', encrypted' : '').($b->state === BagState::Sealed ? ', sealed' : '').", {$until}";
    }
}
