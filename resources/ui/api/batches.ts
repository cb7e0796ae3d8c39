import { client, take } from './client';
import type { Batch, BatchSettings } from './types';

const at = (batch: number) => ({ params: { path: { batch } } });

export type BatchDevices = { serials: string[]; jobs: number[]; csv: string | null; good: number | null; goal: string };
export type Pretended = { ports: number; technicians: number; startsAt: string | null; deadline: string | null };

/** Devices that are to be done by a deadline. */
export const batches = {
    all: () => take(client.GET('/batches')),
    show: (batch: number) => take(client.GET('/batches/{batch}', at(batch))),
    make: (settings: BatchSettings, devices: BatchDevices) =>
        take(client.POST('/batches', { body: { ...settings, ...devices } })),
    change: (batch: number, settings: BatchSettings) =>
        take(client.PUT('/batches/{batch}', { ...at(batch), body: settings })),
    add: (batch: number, devices: BatchDevices) =>
        take(client.POST('/batches/{batch}/devices', { ...at(batch), body: devices })),
    take: (batch: number, job: number) =>
        take(client.DELETE('/batches/{batch}/devices/{job}', { params: { path: { batch, job } } })),
    end: (batch: number) => take(client.POST('/batches/{batch}/end', at(batch))),
    whatIf: (batch: number, pretended: Pretended) =>
        take(client.POST('/batches/{batch}/what-if', { ...at(batch), body: pretended })),
};
export const orderAddress = (batch: Batch, technician: number) => `/api/v1/batches/${batch.id}/order/${technician}.ics`;
export const documentAddress = (batch: number) => `/api/v1/batches/${batch}/document`;
