import { client, take } from './client';

/** Where a scanned label leads to: a device's job, or a bag on the Shelf; null where it is no label of ours. */
export async function placeOf(code: string): Promise<string | null> {
    const found = await take(client.GET('/scan', { params: { query: { code } } }));
    if (found.job !== null) return `/jobs/${found.job}`;
    return found.bag === null ? null : `/shelf/${encodeURIComponent(found.bag)}`;
}
