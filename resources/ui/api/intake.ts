import { client, take } from './client';
import type { Said } from './types';

/** Devices that are not plugged in. */
export const intake = {
    identify: (said: Said) => take(client.POST('/identify', { body: said })),
    byHand: (said: Said) => take(client.POST('/intake', { body: said })),
    correct: (job: number, said: Said) =>
        take(client.PUT('/jobs/{job}/said', { params: { path: { job } }, body: said })),
    attach: (job: number, serial: string) =>
        take(client.PUT('/jobs/{job}/device', { params: { path: { job } }, body: { serial } })),
    previewBatch: (csv: string) => take(client.POST('/intake/batch/preview', { body: { csv } })),
    takeBatch: (csv: string, good: number) => take(client.POST('/intake/batch', { body: { csv, good } })),
};
