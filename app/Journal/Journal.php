<?php

declare(strict_types=1);

namespace App\Journal;

use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\User;
use JadeStep\Core\Job\Act;

/**
 * Writes the Journal: who did what, when, to which device, and with which evidence. It only ever adds, and whoever acts
 * writes the line in the transaction of the act.
 */
final class Journal
{
    public function __construct(private readonly LastDone $done)
    {
    }

    /** A person's act on a job. */
    public function note(Act $act, BenchJob $job, User $by, Evidence $evidence = new Evidence): void
    {
        $this->write($act->value, $act->done(), $job, $job->serial, $by, $evidence);
        $this->done->keep($act->done());
    }

    /** That an act on a job was refused, and why. */
    public function noteRefused(Act $act, BenchJob $job, User $by, Evidence $evidence): void
    {
        $this->write("{$act->value}-refused", "{$act->done()}: refused", $job, $job->serial, $by, $evidence);
    }

    /**
     * What a machine did for a job.
     *
     * @param  string  $event  its code
     */
    public function noteMachine(string $event, string $words, BenchJob $job, Evidence $evidence = new Evidence): void
    {
        $this->write($event, $words, $job, $job->serial, null, $evidence);
    }

    /** A person's deed on something that is no job: a bag, a vendor, a setting. */
    public function noteDeed(
        Deed $deed,
        User $by,
        Evidence $evidence = new Evidence,
        ?string $serial = null,
        ?BenchJob $job = null,
    ): void {
        $this->write($deed->value, $deed->words(), $job, $serial ?? $job?->serial, $by, $evidence);
        $this->done->keep($deed->words());
    }

    /** What a rule did by itself that a lead has set, to something that is no job. */
    public function noteRule(Deed $deed, Evidence $evidence, ?string $serial): void
    {
        $this->write($deed->value, $deed->words(), null, $serial, null, $evidence);
    }

    /** What somebody did who is not signed in: whoever it was. */
    public function noteStranger(Deed $deed, Evidence $evidence): void
    {
        $this->write($deed->value, $deed->words(), null, null, null, $evidence, JournalLine::STRANGER);
    }

    private function write(
        string $event,
        string $words,
        ?BenchJob $job,
        ?string $serial,
        ?User $by,
        Evidence $evidence,
        string $otherwise = JournalLine::MACHINE,
    ): void {
        activity()
            ->event($event)
            ->causedBy($by)
            ->withProperties($evidence->cut()->facts)
            ->tap(static function (JournalLine $line) use ($job, $by, $serial, $otherwise): void {
                $line->who = $by === null ? $otherwise : $by->name;
                $line->serial = $serial;
                $line->bench_job_id = $job?->id;
            })
            ->log($words);
    }
}
