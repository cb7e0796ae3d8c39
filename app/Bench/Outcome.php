<?php

declare(strict_types=1);

namespace App\Bench;

/** How one run of a step ended. */
final readonly class Outcome
{
    /**
     * @param  array{code: string, detail: string}|null  $problem
     * @param  list<StepCode>  $also  steps that begin anew with it
     * @param  array<string, mixed>  $evidence  for the Journal
     */
    private function __construct(public OutcomeKind $kind, public float $seconds, public ?array $problem, public array $also = [], public array $evidence = [])
    {
    }

    /** @param  array<string, mixed>  $evidence  what shows it, for the Journal; never a secret, nor an owner's content */
    public static function done(array $evidence = []): self
    {
        return new self(OutcomeKind::Done, 0, null, [], $evidence);
    }

    /** Run it again soon; with a problem where a hand is wanted meanwhile. */
    public static function again(float $seconds, ?string $code = null, string $detail = ''): self
    {
        return new self(OutcomeKind::Again, $seconds, $code === null ? null : ['code' => $code, 'detail' => $detail]);
    }

    public static function ownerLockIsOn(): self
    {
        return self::again(2, 'owner-lock-on', 'The owner lock is on again, and the device takes no data while it is. Have the owner switch it off on the device; it then goes on by itself.');
    }

    /** It goes on when a person has done something and says so, or is seen to have done it. */
    public static function wanted(string $code, string $detail): self
    {
        return new self(OutcomeKind::Wanted, 0, ['code' => $code, 'detail' => $detail]);
    }

    public static function failed(string $code, string $detail): self
    {
        return new self(OutcomeKind::Failed, 0, ['code' => $code, 'detail' => $detail]);
    }

    /** Nothing was erased and the route cannot be taken: the job goes back to Choose with its backups kept. */
    public static function backToChoose(string $code, string $detail): self
    {
        return new self(OutcomeKind::BackToChoose, 0, ['code' => $code, 'detail' => $detail]);
    }

    /** The device is not in recovery mode any more: its keys are wanted again. */
    public static function backToRecovery(string $code, string $detail): self
    {
        return new self(OutcomeKind::BackToRecovery, 0, ['code' => $code, 'detail' => $detail]);
    }

    /**
     * The line stays closed: it has to be asked for anew.
     *
     * @param  list<StepCode>  $also  steps that have to be done again before
     */
    public static function backToLine(string $code, string $detail, array $also = []): self
    {
        return new self(OutcomeKind::BackToLine, 0, ['code' => $code, 'detail' => $detail], $also);
    }
}
