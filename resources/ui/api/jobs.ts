import { client, take } from './client';
import type { Job, Pretences, Route, StepCode, WrittenGoal } from './types';

const at = (job: number) => ({ params: { path: { job } } });

export const api = {
    bench: () => take(client.GET('/bench')),
    job: (job: number) => take(client.GET('/jobs/{job}', at(job))),
    windows: (job: number) => take(client.GET('/jobs/{job}/windows', at(job))),
    open: (serial: string) => take(client.POST('/jobs', { body: { serial } })),
    backUpOnly: (serial: string, encryption: 'plain' | 'encrypted', name: string | null) =>
        take(client.POST('/jobs', { body: { serial, intent: 'back-up-only', encryption, name } })),
    returnOnly: (serial: string) => take(client.POST('/jobs', { body: { serial, intent: 'return-only' } })),
    plan: (job: number, goal: WrittenGoal) => take(client.PUT('/jobs/{job}/goal', { ...at(job), body: { goal } })),
    accept: (job: number, route: Route, lookFirst: boolean) =>
        take(
            client.PUT('/jobs/{job}/route', {
                ...at(job),
                body: {
                    route: route.id,
                    build: route.legs.at(-1)?.to.build ?? '',
                    lookFirst,
                    accept: { pairingLost: route.losses.pairingLost, appsUnavailable: route.losses.appsUnavailable },
                },
            }),
        ),
    backup: (job: number, choice: { encryption: 'plain' | 'encrypted'; sideExports: string[]; name: string | null }) =>
        take(client.PUT('/jobs/{job}/backup', { ...at(job), body: choice })),
    passphrase: (job: number, passphrase: string, again: string | null) =>
        take(client.POST('/jobs/{job}/passphrase', { ...at(job), body: { passphrase, again } })),
    offer: () => take(client.GET('/passphrase-offer')),
    cloud: (job: number, backup: { takenAt: string; madeOn: string; kinds: string[] } | null) =>
        take(client.PUT('/jobs/{job}/cloud', { ...at(job), body: { backup } })),
    whatIf: (job: number, pretences: Pretences) =>
        take(client.POST('/jobs/{job}/what-if', { ...at(job), body: pretences })),
    since: (job: number) => take(client.GET('/jobs/{job}/since', at(job))),
    describe: (job: number, about: Job['about']) => take(client.PUT('/jobs/{job}/about', { ...at(job), body: about })),
    seen: (job: number) => take(client.DELETE('/jobs/{job}/flag', at(job))),
    attest: (job: number, code: string) =>
        take(client.PUT('/jobs/{job}/attestations/{code}', { params: { path: { job, code } } })),
    attestTogether: (job: number, codes: string[]) =>
        take(client.PUT('/jobs/{job}/attestations', { ...at(job), body: { codes } })),
    crossLine: (job: number, serial: string) => take(client.POST('/jobs/{job}/line', { ...at(job), body: { serial } })),
    backUpAgain: (job: number) => take(client.POST('/jobs/{job}/backup-again', at(job))),
    retry: (job: number, code: StepCode) =>
        take(client.POST('/jobs/{job}/steps/{code}/retry', { params: { path: { job, code } } })),
    pair: (job: number) => take(client.POST('/jobs/{job}/pair', at(job))),
    takeBack: (job: number, code: string) =>
        take(client.DELETE('/jobs/{job}/attestations/{code}', { params: { path: { job, code } } })),
    chooseAgain: (job: number) => take(client.POST('/jobs/{job}/choose-again', at(job))),
    reopen: (job: number) => take(client.POST('/jobs/{job}/reopen', at(job))),
    leave: (job: number) => take(client.POST('/jobs/{job}/leave', at(job))),
} satisfies Record<string, (...args: never[]) => Promise<unknown>>;
