import { client, take } from './client';

type Span = { from: string; until: string };

/** What was done in some days, counted. */
export const reports = {
    show: (span: Span) => take(client.GET('/reports', { params: { query: span } })),
};
export const reportCsvAddress = ({ from, until }: Span) =>
    `/api/v1/reports.csv?from=${encodeURIComponent(from)}&until=${encodeURIComponent(until)}`;
