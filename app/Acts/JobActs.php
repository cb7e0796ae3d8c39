<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\ChecksOfJob;
use App\Facts\JobFacts;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\Exception\Declined;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Job;

/**
 * The one door for acts on a job: the job's row is held, the core says whether the act is open, the act is carried
 * out, and its line is written into the Journal, all in one transaction. A refusal is written down too, and changes
 * nothing.
 */
final readonly class JobActs
{
    /** An act that a worker's transaction crossed is judged and carried out once more. */
    private const TRIES = 3;

    public function __construct(private JobFacts $facts, private ChecksOfJob $checks, private Journal $journal)
    {
    }

    /**
     * @param  callable(Job): mixed  $do
     *
     * @throws Refusal|Declined
     */
    public function carryOut(Act $act, BenchJob $job, User $by, callable $do, Evidence $evidence = new Evidence): void
    {
        try {
            DB::transaction(function () use ($act, $job, $by, $do, $evidence): void {
                $this->checks->keep($job); // an act is judged by what holds at this moment
                $do($this->facts->assertOpen($job, $act));
                $this->journal->note($act, $job, $by, $evidence);
            }, self::TRIES);
        } catch (Refusal|Declined $e) {
            $job->refresh()->unsetRelations();
            $this->journal->noteRefused($act, $job, $by, $evidence->and('refused', $e->reason));
            throw $e;
        } finally {
            $this->checks->keep($job);
        }
    }

    /** @throws Refusal where the act is not open at this moment, for what is looked at before it */
    public function assertOpen(Act $act, BenchJob $job): void
    {
        $this->facts->assertOpen($job, $act);
    }
}
