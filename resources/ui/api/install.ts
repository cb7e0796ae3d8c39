import { client, raw, take } from './client';
import type { Goal, HeldPackage, Route } from './types';

const at = (job: number) => ({ params: { path: { job } } });

/** What hands do at and after the erase line, and what the benches keep for it. */
export const install = {
    askOverCable: (job: number) => take(client.POST('/jobs/{job}/recovery/cable', at(job))),
    /** The last yes: from here the device is written to. */
    confirm: (job: number) => take(client.POST('/jobs/{job}/recovery/install', at(job))),
    leaveRecovery: (job: number) => take(client.POST('/jobs/{job}/recovery/leave', at(job))),
    onward: (job: number) => take(client.GET('/jobs/{job}/onward', at(job))),
    goOnward: (job: number, goal: Goal, route: Route) =>
        take(
            client.POST('/jobs/{job}/onward', {
                ...at(job),
                body: {
                    goal,
                    route: route.id,
                    build: route.legs.at(-1)?.to.build ?? '',
                    accept: { pairingLost: route.losses.pairingLost, appsUnavailable: route.losses.appsUnavailable },
                },
            }),
        ),
    benches: () => take(client.GET('/benches')),
    keepBench: (
        id: number | null,
        body: { name: string; linkAddress: string | null; ports: { port: string; label: string | null }[] },
    ) =>
        id === null
            ? take(client.POST('/benches', { body }))
            : take(client.PUT('/benches/{bench}', { params: { path: { bench: id } }, body })),
    removeBench: (bench: number) => take(client.DELETE('/benches/{bench}', { params: { path: { bench } } })),
    packages: () => take(client.GET('/packages')),
    fetchPackage: (sha256: string) => take(client.POST('/packages/{sha256}/fetch', { params: { path: { sha256 } } })),
    removePackage: (sha256: string) =>
        take(client.DELETE('/packages/{package}', { params: { path: { package: sha256 } } })),
    keepStorage: (body: {
        bagsFolder: string;
        packagesFolder: string;
        bagsBytes: number | null;
        packagesBytes: number | null;
    }) => take(client.PUT('/storage', { body })),
    /** The file goes as the body of the request; its digest says what it is. */
    bringPackage: async (file: File): Promise<HeldPackage> =>
        (await raw('POST', '/packages', file, 'application/octet-stream')).json() as Promise<HeldPackage>,
};

type Told = Record<string, unknown>;

/** The practice hands of the rig and of the practice vendors. */
export const rig = {
    show: () => take(client.GET('/rig')),
    hand: (bench: number, serial: string, hand: string, body: Told) =>
        take(client.POST('/rig/{bench}/devices/{serial}/{hand}', { params: { path: { bench, serial, hand } }, body })),
    clearFaults: (bench: number, serial: string) =>
        take(client.DELETE('/rig/{bench}/devices/{serial}/faults', { params: { path: { bench, serial } } })),
    speed: (bench: number, speed: number) =>
        take(client.PUT('/rig/{bench}/speed', { params: { path: { bench } }, body: { speed } })),
    vendor: (vendor: string, body: Told) =>
        take(client.POST('/rig/vendors/{vendor}', { params: { path: { vendor } }, body })),
    clearVendor: (vendor: string) => take(client.DELETE('/rig/vendors/{vendor}', { params: { path: { vendor } } })),
};
