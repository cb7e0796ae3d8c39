import { client, take } from './client';

export type JournalFilter = {
    serial?: string;
    job?: number;
    who?: string;
    act?: string;
    from?: string;
    until?: string;
    words?: string;
};

/** Without what is empty. */
const said = (filter: JournalFilter) =>
    Object.fromEntries(Object.entries(filter).filter(([, v]) => v !== undefined && v !== '')) as JournalFilter;

export const journal = {
    page: (filter: JournalFilter, before: number | null) =>
        take(
            client.GET('/journal', { params: { query: { ...said(filter), ...(before === null ? {} : { before }) } } }),
        ),
};

export const csvAddress = (filter: JournalFilter) =>
    `/api/v1/journal.csv?${new URLSearchParams(Object.entries(said(filter)).map(([k, v]) => [k, String(v)]))}`;
