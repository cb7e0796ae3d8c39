<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;

/**
 * All that might be put back on a device that runs a build now, side by side: the best first, then what cannot be
 * taken.
 */
final readonly class ReturnChoices
{
    /** @param  list<ReturnChoice>  $all */
    private function __construct(public array $all)
    {
    }

    /** @param  list<Candidate>  $candidates */
    public static function of(Situation $situation, Build $installed, array $candidates): self
    {
        $choices = array_map(
            static fn (Candidate $c): ReturnChoice => self::choice($situation, $installed, $c),
            $candidates,
        );
        $choices[] = self::bringing($situation, $installed, Base::none());
        usort(
            $choices,
            static fn (ReturnChoice $a, ReturnChoice $b): int => [
                ! $a->selectable(),
                ...$a->price(),
                $a->backup === null,
            ] <=> [! $b->selectable(), ...$b->price(), $b->backup === null],
        );

        return new self($choices);
    }

    /** What the ledger proposes: the least loss of what can be taken. To put nothing back is never a proposal. */
    public function proposed(): ?ReturnChoice
    {
        $best = $this->all[0];

        return $best->backup === null || ! $best->selectable() ? null : $best;
    }

    public function find(?string $backup): ?ReturnChoice
    {
        foreach ($this->all as $choice) {
            if ($choice->backup === $backup) {
                return $choice;
            }
        }

        return null;
    }

    /**
     * The ledger of a device that is kept as it was set up new, with chosen kinds brought in one item at a time.
     *
     * @param  list<Kind>  $kinds
     * @return list<KindFate>
     */
    public static function asNew(Situation $situation, Build $installed, array $kinds, \DateTimeImmutable $asOf): array
    {
        $chosen = array_fill_keys(array_map(static fn (Kind $k): string => $k->value, $kinds), $asOf);

        return Ledger::of($situation->withSideExports($chosen), $installed, Base::none());
    }

    private static function choice(Situation $situation, Build $installed, Candidate $candidate): ReturnChoice
    {
        $held = $candidate->backup;
        $base = Base::held($held, $installed->version);
        $reasons = self::against($candidate, $situation->device, $installed);

        return $reasons === []
            ? self::bringing($situation, $installed, $base)
            : new ReturnChoice($held->id, $base, [], $reasons);
    }

    private static function bringing(Situation $situation, Build $installed, Base $base): ReturnChoice
    {
        $fates = Ledger::of($situation, $installed, $base);

        return new ReturnChoice($base->backup, $base, $fates, [], Ledger::staleSeconds($situation->device, $fates));
    }

    /** @return list<BaseReason> all that apply */
    private static function against(Candidate $c, Device $device, Build $installed): array
    {
        $held = $c->backup;
        $reasons = [
            [BaseReason::WrongDevice, ! $held->inCloud && $c->serial !== $device->serial],
            [BaseReason::OtherLine, $c->osLine !== $device->osLine],
            [BaseReason::Damaged, $c->damaged],
            [BaseReason::Unverified, ! $held->inCloud && ! $held->verified && ! $c->damaged],
            [BaseReason::PassphraseUnproven, $held->encrypted && ! $held->passphraseProven],
            [BaseReason::TooNew, ! $held->inCloud && self::isTooNew($c, $installed)],
            [BaseReason::DeviceRefused, $c->refused],
        ];

        return array_column(array_filter($reasons, static fn (array $r): bool => $r[1]), 0);
    }

    /** A bag of which no kind opens on this version brings nothing, lowered or not. */
    private static function isTooNew(Candidate $c, Build $installed): bool
    {
        $opens = array_filter(
            $c->backup->kinds,
            static fn (Kind $k): bool => $installed->opens($k->value, $c->backup->storeSchemas[$k->value] ?? null),
        );

        return $c->backup->kinds !== [] && $c->backup->declaredVersion->isAbove($installed->version) && $opens === [];
    }
}
