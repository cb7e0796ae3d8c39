import { client, take } from './client';
import type { Kind } from './types';

const at = (job: number) => ({ params: { path: { job } } });

/** The end of a job, and jobs that have ended. */
export const handover = {
    show: (job: number) => take(client.GET('/jobs/{job}/hand-over', at(job))),
    sheet: (job: number) => take(client.GET('/jobs/{job}/sheet', at(job))),
    /** Home layout, wallpapers and photos, before and after; the passphrase where the backup is encrypted. */
    byEye: (job: number, passphrase: string | null) =>
        take(client.POST('/jobs/{job}/by-eye', { ...at(job), body: { passphrase } })),
    look: (job: number) => take(client.POST('/jobs/{job}/aftercare/look', at(job))),
    say: (job: number, code: string, done: boolean) =>
        take(client.PUT('/jobs/{job}/aftercare/{code}', { params: { path: { job, code } }, body: { done } })),
    end: (job: number, accept: Kind[]) => take(client.POST('/jobs/{job}/hand-over', { ...at(job), body: { accept } })),
    giveBack: (job: number, reason: string) =>
        take(client.POST('/jobs/{job}/give-back', { ...at(job), body: { reason } })),
    find: (find: string, before: number | null) =>
        take(
            client.GET('/jobs', {
                params: { query: { find, state: 'ended', ...(before === null ? {} : { before }) } },
            }),
        ),
};

export const sheetAddress = (job: number) => `/api/v1/jobs/${job}/sheet`;

export const pictureNow = (job: number, kind: string, path: string) =>
    `/api/v1/jobs/${job}/by-eye/${[kind, ...path.split('/')].map(encodeURIComponent).join('/')}`;
