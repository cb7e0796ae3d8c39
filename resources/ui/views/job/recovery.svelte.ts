import type { KeyAction } from '../../api/types';

/** How long a short press is shown, and how long one has to get to the next key, in seconds. */
const PRESS_SECONDS = 1;
const BETWEEN_SECONDS = 2;

export interface Beat {
    key: number;
    from: number;
    seconds: number;
}

/** Paces a key sequence: each key in its turn with the seconds that it is held, and a moment in between. */
export class Pace {
    readonly beats: Beat[];
    readonly whole: number;
    #at = $state<number | null>(null);
    #timer: ReturnType<typeof setInterval> | undefined;
    #began = 0;
    #heard = $state(0);

    constructor(readonly keys: KeyAction[]) {
        let from = BETWEEN_SECONDS;
        this.beats = keys.map((k, key) => {
            const beat = { key, from, seconds: k.seconds ?? PRESS_SECONDS };
            from += beat.seconds + BETWEEN_SECONDS;
            return beat;
        });
        this.whole = from;
    }

    /** Seconds since it began, or null where it does not run. */
    get at() {
        return this.#at;
    }

    /** The beat that is on or comes next; null before the beginning and after the end. */
    get beat(): Beat | null {
        const at = this.#at;
        return at === null ? null : (this.beats.find((b) => at < b.from + b.seconds) ?? null);
    }

    get inBeat(): boolean {
        return this.beat !== null && this.#at !== null && this.#at >= this.beat.from;
    }

    /** Seconds until the key may be let go, or until the next one comes. */
    get left(): number {
        const [at, beat] = [this.#at, this.beat];
        if (at === null || beat === null) return 0;
        return Math.ceil(this.inBeat ? beat.from + beat.seconds - at : beat.from - at);
    }

    start(): void {
        this.stop();
        this.#began = performance.now();
        this.#at = 0;
        this.#timer = setInterval(() => {
            this.#at = (performance.now() - this.#began) / 1000;
            if (this.#at > this.whole) this.stop();
        }, 100);
    }

    /**
     * Goes with what the device was heard to take, where that is told: on to the key that comes next, and back to the
     * first where it wants the sequence anew.
     */
    follow(heard: number): void {
        const before = this.#heard;
        this.#heard = heard;
        const [at, next] = [this.#at, this.beats[heard]];
        if (at === null || next === undefined || heard === before) return;
        if (heard < before) this.start();
        else if (at < next.from - BETWEEN_SECONDS) this.#began -= (next.from - BETWEEN_SECONDS - at) * 1000;
    }

    /** Keys of the sequence that the device has taken, as far as it was heard. */
    get heard(): number {
        return this.#heard;
    }

    stop(): void {
        clearInterval(this.#timer);
        this.#at = null;
    }
}

export const keyName = (target: string) => target.replace('-', ' ');
export const keyWords = (k: Pick<KeyAction, 'action' | 'target' | 'seconds'>) =>
    k.action === 'hold'
        ? `Hold ${keyName(k.target)} for ${k.seconds} seconds`
        : `Press ${keyName(k.target)} once, shortly`;
