<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Proof\Happened;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;

/** What is said of a device when before and after have been compared: decided here once, shown everywhere. */
final readonly class Verdict
{
    /**
     * @param  list<Kind>  $byHand  what has to be done by hand again, and was never carried
     * @param  list<string>  $named  losses that were named and accepted, in words
     * @param  list<string>  $namedLater  those of them that were accepted only after the data had left the device
     * @param  list<string>  $unnamed  losses that nobody had named, in words
     * @param  list<Kind>  $unnamedKinds
     * @param  int  $unnamedItems  how many items the unnamed losses are
     */
    private function __construct(
        public VerdictCode $code,
        public array $byHand,
        public array $named,
        public array $namedLater,
        public array $unnamed,
        public array $unnamedKinds,
        public int $unnamedItems,
    ) {
    }

    public static function notYet(): self
    {
        return new self(VerdictCode::NotYet, [], [], [], [], [], 0);
    }

    /** @param  Promise  $standing  the one that stood when the data left the device */
    public static function of(JobProof $proof, Promise $standing, Device $before): self
    {
        $unnamed = $proof->unnamed();
        $losses = [
            ...array_map(self::loss(...), $proof->named()),
            ...array_map(
                static fn (string $n): string => "the pairing with {$n}",
                $before->accessoryNames($standing->losses->pairingLost),
            ),
            ...array_map(
                static fn (string $n): string => "the app {$n}",
                $before->appNames($standing->losses->appsUnavailable),
            ),
        ];
        $byHand = array_filter($proof->kinds, static fn (ProvenKind $k): bool => $k->isByHand() && $k->before > 0);
        $later = array_filter($proof->kinds, static fn (ProvenKind $k): bool => $k->namedLater);
        $nothing = $losses === [] && $proof->missing() === 0 && $standing->losses->isEmpty();
        $code =
            $unnamed !== []
                ? VerdictCode::MoreMissing
                : ($nothing
                    ? VerdictCode::NothingMissing
                    : VerdictCode::AsNamed);

        return new self(
            $code,
            self::kindsOf($byHand),
            $losses,
            array_values(array_map(self::loss(...), $later)),
            array_map(self::loss(...), $unnamed),
            self::kindsOf($unnamed),
            array_sum(array_map(static fn (ProvenKind $k): int => $k->unnamedItems(), $unnamed)),
        );
    }

    /** @return list<string> all that is not there, in words: what was named first */
    public function losses(): array
    {
        return [...$this->named, ...$this->unnamed];
    }

    public function words(): string
    {
        $named = $this->named === [] ? 'nothing of what it named is missing' : implode(', ', $this->named);
        $items = $this->unnamedItems === 1 ? '1 item' : "{$this->unnamedItems} items";
        $later =
            $this->namedLater === []
                ? ''
                : ' Accepted only later, on the way: '.implode(', ', $this->namedLater).'.';

        return match ($this->code) {
            VerdictCode::NotYet => 'Before and after have not been compared yet.',
            VerdictCode::NothingMissing => 'Nothing is missing.'.$this->byHandWords(),
            VerdictCode::AsNamed => "All is as the plan named it: {$named}.{$later}".$this->byHandWords(),
            VerdictCode::MoreMissing => 'More is missing than was named: '
                .implode(', ', $this->unnamed)
                ." ({$items}). Put it back first.",
        };
    }

    private function byHandWords(): string
    {
        $kinds = array_map(static fn (Kind $k): string => $k->label(), $this->byHand);

        return $kinds === [] ? '' : ' To be done by hand again: '.implode(', ', $kinds).'.';
    }

    private static function loss(ProvenKind $k): string
    {
        $label = $k->promise->kind->label();

        return $k->happened === Happened::Nothing
            ? "{$label}, all of it"
            : "{$k->missingItems()} of {$k->before} in {$label}";
    }

    /**
     * @param  array<ProvenKind>  $kinds
     * @return list<Kind>
     */
    private static function kindsOf(array $kinds): array
    {
        return array_values(array_map(static fn (ProvenKind $k): Kind => $k->promise->kind, $kinds));
    }
}
