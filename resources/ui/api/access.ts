import { client, take } from './client';
import type { PersonEntry } from './types';

const of = (person: number) => ({ params: { path: { person } } });
const by = (link: string) => ({ params: { path: { link } } });

/** One's own password, second factor and tokens; what leads do about other people's. */
export const access = {
    confirm: (password: string) => take(client.POST('/session/confirmation', { body: { password } })),
    changePassword: (current: string, password: string) =>
        take(client.PUT('/session/password', { body: { current, password } })),
    beginSecondFactor: () => take(client.POST('/session/second-factor')),
    confirmSecondFactor: (code: string) => take(client.PUT('/session/second-factor', { body: { code } })),
    removeSecondFactor: () => take(client.DELETE('/session/second-factor')),
    link: (link: string) => take(client.GET('/password-links/{link}', by(link))),
    useLink: (link: string, password: string) =>
        take(client.PUT('/password-links/{link}', { ...by(link), body: { password } })),
    giveLink: (person: number) => take(client.POST('/people/{person}/link', of(person))),
    removeSecondFactorOf: (person: number) => take(client.DELETE('/people/{person}/second-factor', of(person))),
    rules: () => take(client.GET('/access')),
    setRules: (leadsNeedSecondFactor: boolean) => take(client.PUT('/access', { body: { leadsNeedSecondFactor } })),
    tokens: () => take(client.GET('/tokens')),
    makeToken: (name: string, role: PersonEntry['role'], days: number) =>
        take(client.POST('/tokens', { body: { name, role, days } })),
    endToken: (token: number) => take(client.DELETE('/tokens/{token}', { params: { path: { token } } })),
};
