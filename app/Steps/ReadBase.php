<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\BaseOfJob;
use App\Facts\SharedFiles;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;

/** Reads the bag once more that a job's return rests on. Where it is gone or altered, nothing may be erased. */
final readonly class ReadBase
{
    public function __construct(private BagStore $bags, private SharedFiles $shared)
    {
    }

    /**
     * The bag that the owner's data would be gone without: the base, and where none is put back the backup of the job.
     *
     * @param  callable(int): void  $progress  told the bytes read since the last call
     * @return Problem|null null where it is whole
     */
    public function faultOf(BenchJob $job, callable $progress): ?Problem
    {
        $bag = self::restsOn($job);
        if ($bag === null) {
            return Problem::of(
                ProblemCode::BaseMissing,
                'The backup that the return rests on is not on the Shelf any more. Nothing was erased. Back up '
                    .'again, or choose another route.',
            );
        }
        $faults = $this->faults($bag, $progress);

        return $faults === [] ? null : Problem::of(
            ProblemCode::BaseDamaged,
            "The backup that the return rests on ({$bag->label}) is not whole any more: "
                ."{$faults[0]->message()}. Nothing was erased. Back up again, or choose another route.",
        );
    }

    /**
     * A bag whose files are another bag's too may have been changed through it, so it is read again before it is
     * trusted.
     *
     * @param  callable(int): void  $progress  told the bytes read since the last call
     * @return bool whether it is whole, as far as that has to be seen
     */
    public function isTrusted(Bag $bag, callable $progress): bool
    {
        return $bag->shared_at === null || $this->faults($bag, $progress) === [];
    }

    /**
     * @param  callable(int): void  $progress
     * @return list<Fault> which are kept with the bag
     */
    private function faults(Bag $bag, callable $progress): array
    {
        try {
            $faults = BagVerifier::verify($this->bags->folder($bag->id), $progress)->faults;
        } catch (NotABag) {
            $faults = [Fault::of(FaultCode::Missing, $bag->id)];
        }
        if ($faults !== []) {
            $this->shared->foundDamaged($bag, $faults);
        }

        return $faults;
    }

    public static function restsOn(BenchJob $job): ?Bag
    {
        return BaseOfJob::isWanted($job) ? BaseOfJob::find($job) : $job->safetyBag();
    }
}
