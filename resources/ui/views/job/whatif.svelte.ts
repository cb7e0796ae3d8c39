import { api } from '../../api/jobs';
import type { Plan, Pretences } from '../../api/types';
import { instant } from '../../parts/format';

const PAUSE_MS = 300;
const NOTHING = {
    backup: '' as '' | 'plain' | 'encrypted' | 'none',
    earlierOn: '',
    earlierMadeOn: '',
    earlierBackup: 'encrypted' as 'plain' | 'encrypted',
    megabytes: '',
    startsOn: '',
    startsTime: '',
};

/** `8:30` as `08:30`; the beginning of the day where it is no time yet. */
const timeOf = (text: string) => (/^([01]?\d|2[0-3]):[0-5]\d$/.test(text) ? text.padStart(5, '0') : '00:00');

/** What is pretended of a job, and the server's answer to it. Nothing of it enters the job. */
export class WhatIf {
    fields = $state({ ...NOTHING });
    sync = $state<Record<string, boolean>>({});
    #answer = $state<{ pretended: string[]; plan: Plan } | null>(null);
    #problem = $state<string | null>(null);
    #busy = $state(false);
    #turn = 0;
    #timer: ReturnType<typeof setTimeout> | undefined;

    constructor(private readonly job: () => number) {}

    get plan() {
        return this.#answer?.plan ?? null;
    }

    get pretended() {
        return this.#answer?.pretended ?? [];
    }

    get problem() {
        return this.#problem;
    }

    get busy() {
        return this.#busy;
    }

    /** The kind is switched, or set back to what it is. */
    switch(kind: string, to: boolean, really: boolean): void {
        const others = Object.entries(this.sync).filter(([k]) => k !== kind);
        this.sync = Object.fromEntries(to === really ? others : [...others, [kind, to]]);
        this.changed();
    }

    changed(): void {
        clearTimeout(this.#timer);
        this.#timer = setTimeout(() => void this.#ask(), PAUSE_MS);
    }

    clear(): void {
        this.fields = { ...NOTHING };
        this.sync = {};
        this.#turn++;
        this.#answer = null;
        this.#problem = null;
    }

    get #pretences(): Pretences {
        const f = this.fields;
        return {
            ...(Object.keys(this.sync).length > 0 && { sync: this.sync }),
            ...(f.backup !== '' && { backup: f.backup }),
            ...(f.earlierOn !== '' &&
                f.earlierMadeOn.trim() !== '' && {
                    earlier: {
                        takenAt: instant(`${f.earlierOn}T12:00`),
                        madeOn: f.earlierMadeOn.trim(),
                        backup: f.earlierBackup,
                    },
                }),
            ...(Number(f.megabytes) > 0 && { linkBytesPerSecond: Number(f.megabytes) * 1_000_000 }),
            ...(f.startsOn !== '' && { startsAt: instant(`${f.startsOn}T${timeOf(f.startsTime)}`) }),
        };
    }

    async #ask(): Promise<void> {
        const turn = ++this.#turn;
        const pretences = this.#pretences;
        if (Object.keys(pretences).length === 0) {
            this.#answer = null;
            this.#problem = null;
            return;
        }
        this.#busy = true;
        const answer = await api.whatIf(this.job(), pretences).catch((e: Error) => e);
        if (turn !== this.#turn) return;
        this.#busy = false;
        this.#problem = answer instanceof Error ? answer.message : null;
        this.#answer = answer instanceof Error ? this.#answer : answer;
    }
}
