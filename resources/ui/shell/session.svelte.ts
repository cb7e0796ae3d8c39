import { ApiProblem, client, take } from '../api/client';
import type { Person, Preferences } from '../api/types';
import { times } from '../parts/times.svelte';
import { gate } from './gate';

/** Who is signed in. `unknown` until the server has said. */
class Session {
    #state = $state<'unknown' | 'out' | 'in'>('unknown');
    #person = $state<Person | null>(null);
    #error = $state<string | null>(null);
    #codeWanted = $state(false);
    #ended = $state(false);

    get state() {
        return this.#state;
    }

    get person() {
        return this.#person;
    }

    get error() {
        return this.#error;
    }

    /** The password was right, and the code of the second factor is wanted. */
    get codeWanted() {
        return this.#codeWanted;
    }

    get mayAct() {
        return this.#person?.mayAct ?? false;
    }

    get leads() {
        return this.#person?.leads ?? false;
    }

    async look(): Promise<void> {
        await this.#enter(() => take(client.GET('/session')), false);
    }

    async signIn(email: string, password: string): Promise<void> {
        await this.#enter(() => take(client.POST('/session', { body: { email, password } })), true);
    }

    async giveCode(code: string): Promise<void> {
        await this.#enter(() => take(client.POST('/session/code', { body: { code } })), true);
    }

    async signOut(): Promise<void> {
        await take(client.DELETE('/session')).catch(() => null);
        this.#out();
    }

    /** The session is over while a page is open: it stays as it is behind the question who goes on. */
    get hasEnded() {
        return this.#ended;
    }

    /** The server says that nobody is signed in. */
    lost(): void {
        if (this.#state !== 'in') return this.#out();
        gate.close();
        this.#ended = true;
    }

    /** Leaves the page that stayed open, with what was typed there. */
    giveUp(): void {
        this.#out();
    }

    beginAgain(): void {
        this.#codeWanted = false;
        this.#error = null;
    }

    /** What the person chose for themselves counts at once. */
    async prefer(preferences: Preferences): Promise<void> {
        this.#person = await take(client.PUT('/session/preferences', { body: preferences }));
    }

    #out(): void {
        this.#person = null;
        this.#state = 'out';
        this.#codeWanted = false;
        this.#ended = false;
        gate.open();
    }

    async #enter(ask: () => Promise<Person | { secondFactor: true | boolean }>, tell: boolean): Promise<void> {
        this.#error = null;
        try {
            if (this.#ended) await gate.quiet();
            const told = await ask();
            if ('name' in told) {
                const another = this.#ended && told.email !== this.#person?.email;
                this.#person = told;
                times.keep(told.shop);
                this.#state = 'in';
                this.#codeWanted = false;
                this.#ended = false;
                gate.open();
                if (another) window.location.reload(); // nothing that somebody else has typed is theirs
            } else {
                this.#codeWanted = true;
            }
        } catch (e) {
            const again = this.#codeWanted && e instanceof ApiProblem && e.code === 'wrong-code';
            if (!this.#ended && tell) this.#out();
            else if (!tell && e instanceof ApiProblem && e.status === 401) this.lost();
            else if (!tell && this.#state === 'unknown') this.#out();
            this.#codeWanted = again;
            this.#error = tell || !(e instanceof ApiProblem && e.status === 401) ? (e as Error).message : null;
        }
    }
}

export const session = new Session();
