import { replace, router } from 'svelte-spa-router';

/** What stands behind the ? of the page's address. */
export const queryOf = (name: string): string => new URLSearchParams(router.querystring ?? '').get(name) ?? '';

/** Puts a filter or choice into the address, so that it can be kept and sent; empty ones leave it. */
export function keepInAddress(values: Record<string, string>): void {
    const query = new URLSearchParams(router.querystring ?? '');
    for (const [name, value] of Object.entries(values)) {
        if (value === '') query.delete(name);
        else query.set(name, value);
    }
    const text = query.toString();
    if (text !== (router.querystring ?? '')) void replace(`${router.location}${text === '' ? '' : `?${text}`}`);
}
