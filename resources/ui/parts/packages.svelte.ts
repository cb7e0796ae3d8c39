import { createQuery } from '@tanstack/svelte-query';
import { install } from '../api/install';

const MOVING_MS = 2000;
const QUIET_MS = 15_000;

/** The packages that are held, asked for often only while one is on its way. */
export function watchPackages() {
    return createQuery(() => ({
        queryKey: ['packages'],
        queryFn: install.packages,
        staleTime: MOVING_MS,
        refetchInterval: (query) =>
            query.state.data?.packages.some((p) => p.state === 'fetching' || p.state === 'wanted') === true
                ? MOVING_MS
                : QUIET_MS,
    }));
}
