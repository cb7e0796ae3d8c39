<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\MissingItem;
use App\Facts\MissingItems;
use App\Facts\ReturnChoicesOfJob;
use App\Journal\Evidence;
use App\Ledger\StepLedger;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Refusal\Refusal;
use App\Steps\CloudReturn;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\ImportState;
use JadeStep\Core\Job\Record\ItemImport;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\Record\OverlayWord;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\ChosenReturn;
use JadeStep\Core\Job\WayBack\FromCloud;
use JadeStep\Core\Job\WayBack\KeepAsNew;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Job\WayBack\PutBack;
use JadeStep\Core\Job\WayBack\PutNothingBack;
use JadeStep\Core\Job\WayBack\WayBack;
use JadeStep\Core\Route\BaseReason;
use JadeStep\Core\Route\BaseUse;
use Psr\Clock\ClockInterface;

/**
 * What people do about the return: hold it, choose another way back, speak for what is waited for, put single items
 * back.
 */
final readonly class BringBack
{
    private const AGAIN = [StepCode::BringIn, StepCode::Prove, StepCode::HandOver];

    public function __construct(
        private JobActs $acts,
        private ReturnChoicesOfJob $choices,
        private MissingItems $missing,
        private StepLedger $ledger,
        private DeviceLink $link,
        private ClockInterface $clock,
    ) {
    }

    /** The device is looked at as new first; the return waits until somebody lets it go on. */
    public function lookFirst(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::LookFirst, $job, $by, static fn () => $job->update(['return_held' => true]));
    }

    public function endLook(BenchJob $job, User $by): void
    {
        $this->acts->carryOut(Act::EndLook, $job, $by, fn () => $this->letGoOn($job));
    }

    private function letGoOn(BenchJob $job): void
    {
        $job->update(['return_held' => false]);
        $step = $job->step(StepCode::LowerCopy);
        if ($step->state === StepState::NeedsHand && $step->waitsFor(ProblemCode::ReturnHeld)) {
            $this->ledger->goOn($step);
        }
    }

    /**
     * Takes another way back than the route's. What it loses beyond what was promised has to be accepted by name.
     *
     * @param  string|null  $backup  a bag's id, `cloud`, or null to put nothing back
     * @param  list<Kind>  $accepted  kinds of which less comes back than was promised
     */
    public function chooseWhole(BenchJob $job, ?string $backup, array $accepted, User $by): void
    {
        $this->acts->carryOut(
            Act::ChooseReturn,
            $job,
            $by,
            function (Job $model) use ($job, $backup, $accepted, $by): void {
                if ($backup === null) {
                    self::assertStillNew($model);
                }
                $choice =
                    $this->choices->of($job)->find($backup)
                    ?? throw Refusal::notNow('There is no such backup for this device. Look at the list again.');
                $words = implode(' ', array_map(static fn (BaseReason $r): string => $r->words(), $choice->reasons));
                $choice->selectable() || throw Refusal::notNow("This backup cannot be put back: {$words}");
                $way = match ($backup) {
                    null => new PutNothingBack,
                    BaseUse::CLOUD => new FromCloud,
                    default => PutBack::ofBag($backup),
                };
                $this->take($job, $way, $this->choices->promise($job, $choice->fates), $accepted, $by);
            },
            new Evidence(['backup' => $backup]),
        );
    }

    /**
     * Keeps the device as it was set up new, and brings chosen kinds in one item at a time.
     *
     * @param  list<Kind>  $kinds
     * @param  list<Kind>  $accepted
     */
    public function keepAsNew(BenchJob $job, ?string $backup, array $kinds, array $accepted, User $by): void
    {
        $this->acts->carryOut(
            Act::ChooseReturn,
            $job,
            $by,
            function (Job $model) use ($job, $backup, $kinds, $accepted, $by): void {
                self::assertStillNew($model);
                $bag = $backup === null ? null : Bag::query()->find($backup);
                $choice = $backup === null ? null : $this->choices->of($job)->find($backup);
                $kinds === []
                    || ($bag !== null && $choice?->selectable() === true)
                    || throw Refusal::notNow('Name a backup that these kinds can be taken from.');
                $cannot = array_filter(
                    $kinds,
                    static fn (Kind $k): bool => ! $k->hasSideExport()
                        || ! in_array($k, $choice->base->kinds ?? [], true),
                );
                $names = implode(', ', array_map(static fn (Kind $k): string => $k->label(), $cannot));
                $cannot === []
                    || throw Refusal::notNow(
                        "These kinds cannot be brought in one by one from this backup: {$names}. They come back "
                            .'with a whole backup only.',
                    );
                $this->take(
                    $job,
                    new KeepAsNew($backup, $kinds),
                    $this->choices->asNew($job, $bag, $kinds),
                    $accepted,
                    $by,
                );
            },
            new Evidence(['backup' => $backup, 'kinds' => array_column($kinds, 'value')]),
        );
    }

    private static function assertStillNew(Job $model): void
    {
        $model->tookDataIn()
            && throw Refusal::notNow(
                'A backup has been put back already, so that the device is not as new any more. Put another '
                    .'backup back, or leave it.',
            );
    }

    /** @param  list<Kind>  $accepted */
    private function take(BenchJob $job, WayBack $way, Promise $promise, array $accepted, User $by): void
    {
        $open = array_filter(
            $job->losesMoreWith($promise),
            static fn (Kind $k): bool => ! in_array($k, $accepted, true),
        );
        $open === []
            || throw Refusal::notAccepted(array_values(array_map(static fn (Kind $k): string => $k->label(), $open)));
        // where it was erased elsewhere, only its backups tell what it held
        $before = $job->intent === Intent::ReturnOnly ? ['device' => $this->choices->before($job)] : [];
        $job->update($before + [
            'proof' => null, 'restorable' => 0, 'imports' => [], 'overlays' => [], 'return_held' => false,
            'return_choice' => new ChosenReturn($way, $promise, $by->name, $this->clock->now()),
        ]);
        $this->again($job);
    }

    /** What has begun of the return begins anew; what has not begun is left to begin in its turn. */
    private function again(BenchJob $job): void
    {
        if (! $job->steps()->where('code', StepCode::PutBack)->exists()) {
            $this->ledger->layOutReturn($job);

            return;
        }
        $codes = [...Sequence::OF_RETURN, StepCode::HandOver];
        $begun = $job->steps()->whereIn('code', $codes)->where('state', '!=', StepState::Waiting)->exists();
        if ($begun) {
            $this->ledger->rewind($job, $codes);
        }
    }

    /** @param  string  $what  a kind's code, or `cloud` */
    public function speakForOverlay(BenchJob $job, string $what, OverlayState $state, User $by): void
    {
        $this->acts->carryOut(
            Act::TickOverlay,
            $job,
            $by,
            function () use ($job, $what, $state, $by): void {
                in_array($what, $job->return()?->waitsFor() ?? [], true)
                    || throw Refusal::notNow('This job does not wait for that.');
                $this->assertItMayBeSaid($job, $what, $state);
                $others = array_filter($job->overlays, static fn (OverlayWord $w): bool => $w->what !== $what);
                $job->update([
                    'overlays' => [
                        new OverlayWord($what, $state, $by->name, $this->clock->now()),
                        ...array_values($others),
                    ],
                ]);
            },
            new Evidence(['what' => $what, 'state' => $state->value]),
        );
    }

    /** The device's own listing beats a person's word. */
    private function assertItMayBeSaid(BenchJob $job, string $what, OverlayState $state): void
    {
        if ($what !== BaseUse::CLOUD) {
            $state !== OverlayState::Refused
                || throw Refusal::notNow('What syncs is not refused: say that it has arrived, or do not wait for it.');

            return;
        }
        if ($state === OverlayState::NotWaited) {
            return;
        }
        $hasBegun = CloudReturn::arrival($job, $this->link->read($job->serial))->hasBegun();
        $hasBegun
            || $state !== OverlayState::Attested
            || throw Refusal::notNow(
                'The device shows nothing of the cloud backup yet. Have it fetched on the device first, or do '
                    .'not wait for it.',
            );
        $hasBegun
            && $state === OverlayState::Refused
            && throw Refusal::notNow(
                'The device shows that something of the cloud backup has come, so that it did not refuse it. Say that '
                    .'this is all.',
            );
    }

    /**
     * Has missing items fetched from a bag and put back one by one; then all is compared again.
     *
     * @param  array<string, string>  $items  the bag to take each from, by kind/path
     */
    public function putItemsBack(BenchJob $job, array $items, User $by): void
    {
        $this->acts->carryOut(
            Act::PutItemsBack,
            $job,
            $by,
            function () use ($job, $items): void {
                $known = [];
                foreach ($this->missing->of($job) as $missing) {
                    $known[$missing->item->key()] = $missing;
                }
                $imports = [];
                foreach ($items as $key => $bag) {
                    $imports[] = self::import(
                        $known[$key] ?? throw Refusal::notNow("{$key} is not missing. Look at the proof again."),
                        $bag,
                    );
                }
                // known by what it is, since another bag may have it under another name
                $others = array_filter(
                    $job->imports,
                    static fn (ItemImport $i): bool => array_filter($imports, $i->isSameItemAs(...)) === [],
                );
                $job->update(['imports' => [...array_values($others), ...$imports]]);
                $this->ledger->rewind($job, self::AGAIN);
            },
            new Evidence(['items' => count($items)]),
        );
    }

    private static function import(MissingItem $missing, string $bag): ItemImport
    {
        $missing->kind->hasSideExport()
            || throw Refusal::notNow(
                ucfirst($missing->kind->label())
                    .' come back with a whole backup only. Put a backup back that has them.',
            );
        $place =
            $missing->placeIn($bag)
            ?? throw Refusal::notNow("That backup does not have {$missing->item->key()}. Choose one that has it.");

        return new ItemImport($missing->kind, $place->path, $bag, $missing->item->sha256, ImportState::Open, '');
    }
}
