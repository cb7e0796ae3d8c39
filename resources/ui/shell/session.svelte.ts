import { ApiProblem, client, take } from '../api/client';
import type { Person } from '../api/types';

/** Who is signed in. `unknown` until the server has said. */
class Session {
    #state = $state<'unknown' | 'out' | 'in'>('unknown');
    #person = $state<Person | null>(null);
    #error = $state<string | null>(null);
    #codeWanted = $state(false);

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
        this.lost();
    }

    /** The server says that nobody is signed in. */
    lost(): void {
        this.#person = null;
        this.#state = 'out';
        this.#codeWanted = false;
    }

    async #enter(ask: () => Promise<Person | { secondFactor: true | boolean }>, tell: boolean): Promise<void> {
        this.#error = null;
        try {
            const told = await ask();
            if ('name' in told) {
                this.#person = told;
                this.#state = 'in';
                this.#codeWanted = false;
            } else {
                this.#codeWanted = true;
            }
        } catch (e) {
            const again = this.#codeWanted && e instanceof ApiProblem && e.code === 'wrong-code';
            this.lost();
            this.#codeWanted = again;
            this.#error = tell || !(e instanceof ApiProblem && e.status === 401) ? (e as Error).message : null;
        }
    }
}

export const session = new Session();
