import { api } from '../../api/jobs';
import type { Job, JobSummary, Port, Route } from '../../api/types';
import { unchecked } from '../../parts/checks';
import { version } from '../../parts/format';

export type Outcome = { serial: string; words: string | null };

/** Does one thing to several, one after the other; what went wrong with which is told, and nothing else stops. */
async function each<T>(all: T[], serial: (of: T) => string, run: (of: T) => Promise<unknown>): Promise<Outcome[]> {
    const outcomes: Outcome[] = [];
    for (const one of all) {
        const words = await run(one)
            .then(() => null)
            .catch((e: Error) => e.message);
        outcomes.push({ serial: serial(one), words });
    }
    return outcomes;
}

export const takeInAll = (ports: Port[]) =>
    each(
        ports,
        (p) => p.serial ?? '',
        (p) => api.open(p.serial ?? ''),
    );

export const attestAll = (jobs: Job[]) =>
    each(
        jobs,
        (j) => j.serial,
        (j) => api.attestTogether(j.id, unchecked(j)),
    );

/** The builds of a route, by which routes of several devices are the same way. */
export const wayOf = (route: Route) => route.legs.map((l) => `${l.move} ${l.to.build}`).join(' > ') + treatment(route);
const treatment = (route: Route) => ` ${route.base === null ? 'kept' : route.base.treatment}`;

export const acceptAll = (jobs: Job[], way: string) =>
    each(
        jobs,
        (j) => j.serial,
        (j) => {
            const route = j.plan?.routes.find((r) => wayOf(r) === way);
            if (route === undefined) return Promise.reject(new Error('This route is not open to it any more.'));
            return api.accept(j.id, route, false);
        },
    );

/** Jobs of devices that are alike: one model and variant, one version. */
export function alike(jobs: JobSummary[]): { name: string; jobs: JobSummary[] }[] {
    const by: Record<string, JobSummary[]> = {};
    for (const job of jobs) {
        const runs = job.fromVersion === null ? 'an unknown version' : version(job.fromVersion);
        (by[`${job.variant ?? job.modelName ?? 'Device'}, on ${runs}`] ??= []).push(job);
    }
    return Object.entries(by).map(([name, of]) => ({ name, jobs: of }));
}
