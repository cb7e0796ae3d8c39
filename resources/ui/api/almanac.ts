import { client, take } from './client';

const ofVendor = (vendor: string) => ({ params: { path: { vendor } } });

type File = { text: string; fileName: string; vendor?: string | null };
type About = { name: string; address: string | null; refreshMinutes: number };

/** The almanac, and the vendors that it hears. */
export const almanac = {
    show: () => take(client.GET('/almanac')),
    windows: (hardwareId: string) =>
        take(client.GET('/almanac/models/{hardwareId}/windows', { params: { path: { hardwareId } } })),
    forecasts: () => take(client.GET('/almanac/forecasts')),
    changes: (hardwareId: string | null) =>
        take(client.GET('/almanac/changes', { params: { query: hardwareId === null ? {} : { hardwareId } } })),
    refresh: () => take(client.POST('/almanac/refresh')),
    preview: (file: File) => take(client.POST('/almanac/import/preview', { body: file })),
    take: (file: File) => take(client.POST('/almanac/import', { body: file })),
    withdraw: (catalogue: number) =>
        take(client.DELETE('/almanac/catalogues/{catalogue}', { params: { path: { catalogue } } })),
    vendors: () => take(client.GET('/vendors')),
    addVendor: (id: string, about: About) => take(client.POST('/vendors', { body: { id, ...about } })),
    changeVendor: (vendor: string, about: About) =>
        take(client.PUT('/vendors/{vendor}', { ...ofVendor(vendor), body: about })),
    lookForKeys: (vendor: string) => take(client.POST('/vendors/{vendor}/keys/look', ofVendor(vendor))),
    decideKey: (vendor: string, key: number, state: 'accepted' | 'refused', name: string | null) =>
        take(client.PUT('/vendors/{vendor}/keys/{key}', { params: { path: { vendor, key } }, body: { state, name } })),
};

export const buildsAddress = (vendor: string) => `/api/v1/almanac/vendors/${encodeURIComponent(vendor)}/builds.csv`;
export const calendarAddress = '/api/v1/almanac/calendar.ics';
