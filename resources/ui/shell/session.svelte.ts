import { ApiProblem, client, openSession, take } from '../api/client';
import type { Person } from '../api/types';

/** Who is signed in. `unknown` until the server has said. */
class Session {
    #state = $state<'unknown' | 'out' | 'in'>('unknown');
    #person = $state<Person | null>(null);
    #error = $state<string | null>(null);

    get state() {
        return this.#state;
    }

    get person() {
        return this.#person;
    }

    get error() {
        return this.#error;
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
        await this.#enter(async () => {
            await openSession();
            return take(client.POST('/session', { body: { email, password } }));
        }, true);
    }

    async signOut(): Promise<void> {
        await take(client.DELETE('/session')).catch(() => null);
        this.lost();
    }

    /** The server says that nobody is signed in. */
    lost(): void {
        this.#person = null;
        this.#state = 'out';
    }

    async #enter(ask: () => Promise<Person>, tell: boolean): Promise<void> {
        this.#error = null;
        try {
            this.#person = await ask();
            this.#state = 'in';
        } catch (e) {
            this.lost();
            this.#error = tell || !(e instanceof ApiProblem && e.status === 401) ? (e as Error).message : null;
        }
    }
}

export const session = new Session();
