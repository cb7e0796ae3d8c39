import type { Batch, BatchSummary } from '../../api/types';
import { STEP } from '../../api/words';
import { counted } from '../../parts/format';
import { times } from '../../parts/times.svelte';

/** "82 in 100"; nothing that is estimated is rounded to certainty. */
export function inHundred(chance: number): string {
    const share = Math.round(chance * 100);
    if (share < 1) return 'less than 1 in 100';
    if (share > 99) return 'more than 99 in 100';
    return `${share} in 100`;
}

/** A moment with its day of the week, which is what people plan by. */
export const moment = (time: string) => `${times.weekday(time)} ${times.dayOfYear(time)}, ${times.clock(time)}`;

/** From when to when; the day stands once where it is the same. */
export const between = (from: string, until: string) =>
    `${moment(from)} to ${dayOf(from) === dayOf(until) ? times.clock(until) : moment(until)}`;

/** The one sentence that a batch is asked for. */
export function answer(batch: BatchSummary): string {
    if (batch.open === 0) return batch.devices === 0 ? 'No device is in it yet.' : 'All of its devices are done.';
    if (batch.madeAt === null || batch.finishesAt === null) return 'The schedule is being made…';
    const planned = batch.open - batch.unplanned;
    if (planned === 0) return 'No device of it has a way to its goal.';
    const all = planned === 1 ? 'the one device' : `all ${planned} devices`;
    const done = `${all} done by ${moment(batch.finishesAt)}, as expected`;
    return batch.deadline === null
        ? `${capital(done)}; no deadline is set.`
        : `${capital(inHundred(batch.chance ?? 0))} that ${all} make it by ${moment(batch.deadline)}.`;
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

export const lateWords = (batch: BatchSummary) =>
    [
        batch.late === 0 ? '' : `${counted(batch.late, 'device')} late`,
        batch.unplanned === 0 ? '' : `${counted(batch.unplanned, 'device')} without a way`,
    ]
        .filter((w) => w !== '')
        .join(', ');

/** A device is named by its serial and by what it is. */
export function names(batch: Batch): (id: string) => string {
    const jobs = new Map(batch.jobs.map((j) => [String(j.id), j]));
    return (id) => jobs.get(id)?.serial ?? id;
}

export const stepName = (step: string) => (STEP as Record<string, string>)[step] ?? step;

/** The day and the time of the day in the shop's zone, as forms take them. */
export const dayOf = (time: string | number) => times.isoDay(new Date(time));
export const clockOf = (time: string | number) => times.clock(new Date(time));
