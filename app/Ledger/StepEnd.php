<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Journal\Evidence;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;

/** How one run of a step ended. */
final readonly class StepEnd
{
    private const ASK_AGAIN_SECONDS = 1.0;

    /**
     * @param  list<StepCode>  $also  steps that begin anew with it
     */
    private function __construct(
        public StepEndKind $kind,
        public float $seconds,
        public ?Problem $problem,
        public array $also = [],
        public Evidence $evidence = new Evidence,
    ) {
    }

    public static function done(Evidence $evidence = new Evidence): self
    {
        return new self(StepEndKind::Done, 0, null, [], $evidence);
    }

    /** Run it again soon. */
    public static function again(float $seconds): self
    {
        return new self(StepEndKind::Again, $seconds, null);
    }

    /** Run it again soon; a hand is wanted meanwhile. */
    public static function waiting(float $seconds, ProblemCode $code, string $detail): self
    {
        return new self(StepEndKind::Again, $seconds, Problem::of($code, $detail));
    }

    /** It goes on when a person has done something and says so, or is seen to have done it. */
    public static function wanted(ProblemCode $code, string $detail): self
    {
        return new self(StepEndKind::Wanted, 0, Problem::of($code, $detail));
    }

    public static function wantedBecause(Problem $problem): self
    {
        return new self(StepEndKind::Wanted, 0, $problem);
    }

    public static function failed(ProblemCode $code, string $detail): self
    {
        return new self(StepEndKind::Failed, 0, Problem::of($code, $detail));
    }

    public static function failedBecause(Problem $problem): self
    {
        return new self(StepEndKind::Failed, 0, $problem);
    }

    /** Nothing was erased and the route cannot be taken: the job goes back to Choose with its backups kept. */
    public static function backToChoose(Problem $problem): self
    {
        return new self(StepEndKind::BackToChoose, 0, $problem);
    }

    /** The device is not in recovery mode any more: its keys are wanted again. */
    public static function backToRecovery(ProblemCode $code, string $detail): self
    {
        return new self(StepEndKind::BackToRecovery, 0, Problem::of($code, $detail));
    }

    /**
     * The line stays closed: it has to be asked for anew.
     *
     * @param  list<StepCode>  $also  steps that have to be done again before
     */
    public static function backToLine(ProblemCode $code, string $detail, array $also = []): self
    {
        return new self(StepEndKind::BackToLine, 0, Problem::of($code, $detail), $also);
    }

    /**
     * The device wants something of its holder; it goes on when that is done.
     *
     * @param  string  $why  a sentence before what to do, where there is more to say
     */
    public static function askedOnDevice(string $wants, string $why = ''): self
    {
        [$code, $words] = match ($wants) {
            'consent' => [
                ProblemCode::ConsentWanted,
                'The device wants its holder\'s consent: unlock it and say yes on its screen.',
            ],
            'passcode' => [
                ProblemCode::PasscodeWanted,
                'The device wants its passcode: enter it on the device, never here.',
            ],
            default => [
                ProblemCode::OnDeviceWanted,
                'The device wants something on its screen. Do there what it says.',
            ],
        };

        return self::waiting(self::ASK_AGAIN_SECONDS, $code, ltrim("{$why} {$words} It then goes on by itself."));
    }
}
