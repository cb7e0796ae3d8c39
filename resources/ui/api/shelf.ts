import { client, raw, take } from './client';
import type { operations } from './schema';
import type { Keeping, PersonEntry, Shop } from './types';

const of = (bag: string) => ({ params: { path: { bag } } });
type PersonFields = { name: string; email: string; role: PersonEntry['role']; password?: string | null };

export type SecondPlaceFields = NonNullable<
    operations['keepSecondPlace']['requestBody']
>['content']['application/json'];
export type ShelfAsked = NonNullable<operations['shelf']['parameters']['query']>;
export type BagOrder = NonNullable<ShelfAsked['sort']>;

/** The bags on the shelf, how they are kept, and the people. */
export const shelf = {
    page: (asked: ShelfAsked = {}) => take(client.GET('/shelf', { params: { query: asked } })),
    due: () => take(client.GET('/shelf-due')),
    secondPlace: () => take(client.GET('/second-place')),
    /** The secret goes in and never comes out. */
    keepSecondPlace: (place: SecondPlaceFields) => take(client.PUT('/second-place', { body: place })),
    forgetSecondPlace: () => take(client.DELETE('/second-place')),
    fetchBack: (bag: string) => take(client.POST('/shelf/{bag}/fetch-back', of(bag))),
    keeping: () => take(client.GET('/keeping')),
    bag: (bag: string) => take(client.GET('/shelf/{bag}', of(bag))),
    tide: (bag: string) => take(client.GET('/shelf/{bag}/tide', of(bag))),
    items: (bag: string, kind: string) =>
        take(client.GET('/shelf/{bag}/items', { params: { path: { bag }, query: { kind } } })),
    compare: (bag: string, other: string) =>
        take(client.GET('/shelf/{bag}/compare/{other}', { params: { path: { bag, other } } })),
    find: (bag: string, find: string) =>
        take(client.GET('/shelf/{bag}/items', { params: { path: { bag }, query: { find } } })),
    /** Into an encrypted bag: the passphrase goes with every question and is kept nowhere. */
    look: (bag: string, passphrase: string, about: { kind?: string; find?: string }) =>
        take(client.POST('/shelf/{bag}/look', { ...of(bag), body: { passphrase, ...about } })),
    lookAt: async (bag: string, kind: string, path: string, passphrase: string): Promise<Blob> =>
        (await raw('POST', lookAddress(bag, kind, path), JSON.stringify({ passphrase }), 'application/json')).blob(),
    compareOpened: (bag: string, other: string, passphrase: string | null, otherPassphrase: string | null) =>
        take(
            client.POST('/shelf/{bag}/compare/{other}', {
                params: { path: { bag, other } },
                body: { passphrase, otherPassphrase },
            }),
        ),
    verify: (bag: string) => take(client.POST('/shelf/{bag}/verify', of(bag))),
    prove: (bag: string, passphrase: string) =>
        take(client.POST('/shelf/{bag}/passphrase', { ...of(bag), body: { passphrase } })),
    seal: (bag: string, keepUntil: string, label: string | null) =>
        take(client.PUT('/shelf/{bag}/seal', { ...of(bag), body: { keepUntil, label } })),
    name: (bag: string, name: string) => take(client.PUT('/shelf/{bag}/name', { ...of(bag), body: { name } })),
    remove: (bag: string, reason: string) => take(client.DELETE('/shelf/{bag}', { ...of(bag), body: { reason } })),
    fromInbox: (name: string) => take(client.POST('/shelf/inbox', { body: { name } })),
    /** The passphrase of the nights goes in and never comes out. */
    keep: (keeping: Keeping, passphrase: string | null, publicKey: string | null) => {
        const { nightly, fromHour, untilHour, daily, weekly, verifyEveryDays, sealedDays, encrypted } = keeping;
        const nights = { nightly, fromHour, untilHour, daily, weekly, verifyEveryDays, sealedDays, encrypted };
        const rules = { ...nights, shareAtMost: keeping.shareAtMost, deleteDue: keeping.deleteDue };
        return take(client.PUT('/keeping', { body: { ...rules, passphrase, publicKey } }));
    },
    agreeNear: (serial: string) => take(client.PUT('/near/{serial}/agreement', { params: { path: { serial } } })),
    withdrawNear: (serial: string) => take(client.DELETE('/near/{serial}/agreement', { params: { path: { serial } } })),
    people: () => take(client.GET('/people')),
    addPerson: (fields: PersonFields) => take(client.POST('/people', { body: fields })),
    changePerson: (person: number, fields: PersonFields) =>
        take(client.PUT('/people/{person}', { params: { path: { person } }, body: fields })),
    restorePerson: (person: number) => take(client.POST('/people/{person}/restore', { params: { path: { person } } })),
    shop: () => take(client.GET('/shop')),
    keepShop: (shop: Shop) => take(client.PUT('/shop', { body: shop })),
    removePerson: (person: number) => take(client.DELETE('/people/{person}', { params: { path: { person } } })),
    sessions: () => take(client.GET('/sessions')),
    endSession: (session: string) => take(client.DELETE('/sessions/{session}', { params: { path: { session } } })),
    /** A ZIP goes as the body of the request, whatever its size. */
    send: (file: File) => raw('POST', `/shelf/imports?name=${encodeURIComponent(file.name)}`, file, 'application/zip'),
    /** Kinds in open formats, as a file to save. */
    async exportKinds(bag: string, kinds: string[], passphrase: string | null): Promise<void> {
        const answer = await raw(
            'POST',
            `/shelf/${encodeURIComponent(bag)}/export`,
            JSON.stringify({ kinds, passphrase }),
            'application/json',
        );
        const address = URL.createObjectURL(await answer.blob());
        const link = Object.assign(document.createElement('a'), { href: address, download: `${bag}-export.zip` });
        link.click();
        URL.revokeObjectURL(address);
    },
};

export const zipAddress = (bag: string) => `/api/v1/shelf/${encodeURIComponent(bag)}/zip`;
const inBag = (bag: string, how: string, kind: string, path: string) =>
    `/shelf/${encodeURIComponent(bag)}/${how}/${[kind, ...path.split('/')].map(encodeURIComponent).join('/')}`;
export const itemAddress = (bag: string, kind: string, path: string) => `/api/v1${inBag(bag, 'items', kind, path)}`;
const lookAddress = (bag: string, kind: string, path: string) => inBag(bag, 'look', kind, path);
