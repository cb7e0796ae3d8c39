import { notices } from './notices.svelte';

/** Whether the server answers, and since when it does not. */
class Connection {
    #lostAt = $state<Date | null>(null);
    #started: string | null = null;

    get lostAt() {
        return this.#lostAt;
    }

    /** @param started a name of the server's present start; another one means that it was started again */
    answered(started: string | null): void {
        if (this.#lostAt !== null) notices.success('The server answers again. You are where you were.');
        else if (this.#started !== null && started !== null && started !== this.#started)
            notices.success('The server was started again. You are where you were.');
        this.#lostAt = null;
        this.#started = started ?? this.#started;
    }

    silent(): void {
        this.#lostAt ??= new Date();
    }
}

export const connection = new Connection();
