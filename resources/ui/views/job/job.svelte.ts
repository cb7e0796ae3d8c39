import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
import { notices } from '../../shell/notices.svelte';
import { api } from '../../api/jobs';
import type { Job } from '../../api/types';

const ACTIVE_MS = 700;
const QUIET_MS = 3000;

/** The job as the server last told it, asked for again while it moves. */
export function watchJob(id: () => number) {
    return createQuery(() => ({
        queryKey: ['job', id()],
        queryFn: () => api.job(id()),
        refetchInterval: (query) =>
            query.state.data?.state === 'open' &&
            (query.state.data.now.who === 'technician-at-device' ||
                query.state.data.steps.some((s) => s.state === 'running' || s.state === 'ready'))
                ? ACTIVE_MS
                : QUIET_MS,
    }));
}

/** Does something to a job; the answer becomes what is shown, a refusal is told in its own words. */
export function jobAct<T = void>(
    call: (arg: T) => Promise<Job>,
    then: (job: Job) => void = () => {},
    refused: (e: Error) => void = (e) => notices.refused(e),
) {
    const queries = useQueryClient();
    return createMutation(() => ({
        mutationFn: call,
        onSuccess: (job: Job) => {
            queries.setQueryData(['job', job.id], job);
            then(job);
        },
        onError: (e: Error) => {
            refused(e);
            void queries.invalidateQueries({ queryKey: ['job'] });
        },
    }));
}
