import { client, take } from './client';

const of = (serial: string) => ({ params: { path: { serial } } });

/** What is held of one device and its owner. */
export const privacy = {
    held: (serial: string) => take(client.GET('/devices/{serial}/held', of(serial))),
    forget: (serial: string, typed: string) =>
        take(client.POST('/devices/{serial}/forget', { ...of(serial), body: { serial: typed } })),
};
export const exportAddress = (serial: string) => `/api/v1/devices/${encodeURIComponent(serial)}/export`;
