import { client, take } from './client';
import type { Kind, MissingItem, ReturnMode } from './types';

const at = (job: number) => ({ params: { path: { job } } });

/** What is put back, what comes over it, and what was missing. */
export const returns = {
    /** `others` shows backups of other devices too, to find a mix-up. */
    show: (job: number, others: boolean) =>
        take(client.GET('/jobs/{job}/return', { params: { path: { job }, query: { others: others ? 1 : 0 } } })),
    /** `accept` names the kinds of which less comes back than was promised. */
    choose: (job: number, way: { mode: ReturnMode; backup: string | null; kinds?: Kind[]; accept?: Kind[] }) =>
        take(client.PUT('/jobs/{job}/return', { ...at(job), body: { kinds: [], accept: [], ...way } })),
    lookFirst: (job: number) => take(client.PUT('/jobs/{job}/look-first', at(job))),
    endLook: (job: number) => take(client.DELETE('/jobs/{job}/look-first', at(job))),
    say: (job: number, what: string, state: 'attested' | 'not-waited' | 'refused') =>
        take(client.PUT('/jobs/{job}/overlays/{what}', { params: { path: { job, what } }, body: { state } })),
    missing: (job: number) => take(client.GET('/jobs/{job}/missing', at(job))),
    putBack: (job: number, items: { kind: MissingItem['kind']; path: string; bag: string }[]) =>
        take(client.POST('/jobs/{job}/missing', { ...at(job), body: { items } })),
    evidence: (osLine: string, from: number, to: number) =>
        take(client.GET('/evidence', { params: { query: { osLine, from, to } } })),
};
