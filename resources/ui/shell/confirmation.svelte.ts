/** Asks for the person's own password once more; whoever asked waits for the answer. */
class Confirmation {
    #answer: ((given: boolean) => void) | null = $state(null);

    get isAsked() {
        return this.#answer !== null;
    }

    /** Whether the password was given, and was right. One question stands for all who ask meanwhile. */
    ask(): Promise<boolean> {
        const earlier = this.#answer;
        return new Promise((resolve) => {
            this.#answer = (given) => {
                earlier?.(given);
                resolve(given);
            };
        });
    }

    answer(given: boolean): void {
        const waiting = this.#answer;
        this.#answer = null;
        waiting?.(given);
    }
}

export const confirmation = new Confirmation();
