import type { JobSummary, Stage } from '../../api/types';
import { STAGE } from '../../api/words';
import { keepInAddress, queryOf } from '../../parts/query';

const KEY = 'jade-step-board';
export const ORDERS = {
    hand: 'who wants a hand',
    start: 'latest start',
    stage: 'stage',
    model: 'model',
    holder: 'holder',
} as const;
export type Order = keyof typeof ORDERS;
const STAGES = Object.keys(STAGE) as Stage[];

const isOrder = (text: string): text is Order => text in ORDERS;

/** How the Bench's jobs are sorted and which are shown; kept on this computer and in the page's address. */
export class Board {
    #order = $state<Order>('hand');
    #show = $state('all');
    #find = $state('');
    /** The order that stays while a pointer rests on the rows. */
    #still: number[] | null = null;

    constructor() {
        const kept = (localStorage.getItem(KEY) ?? '').split(' ');
        const order = queryOf('order') || kept[0] || 'hand';
        this.#order = isOrder(order) ? order : 'hand';
        this.#show = queryOf('show') || kept[1] || 'all';
        this.#find = queryOf('find');
    }

    get order() {
        return this.#order;
    }

    set order(order: Order) {
        this.#order = order;
        this.#still = null;
        this.#keep();
    }

    /** `all`, `hand`, or a stage. */
    get show() {
        return this.#show;
    }

    set show(show: string) {
        this.#show = show;
        this.#still = null;
        this.#keep();
    }

    get find() {
        return this.#find;
    }

    set find(find: string) {
        this.#find = find;
        keepInAddress({ find });
    }

    get isFiltered() {
        return this.#show !== 'all' || this.#find.trim() !== '';
    }

    all(): void {
        this.show = 'all';
        this.find = '';
    }

    rest(rests: boolean, shown: JobSummary[]): void {
        this.#still = rests ? shown.map((j) => j.id) : null;
    }

    /** The rows that are shown, in their order; the server gives them with the most pressing first. */
    rows(jobs: JobSummary[]): JobSummary[] {
        const words = this.#find.toLowerCase().split(/\s+/).filter(Boolean);
        const fits = (j: JobSummary) =>
            (this.#show === 'all' || (this.#show === 'hand' ? j.needsHand : j.stage === this.#show)) &&
            words.every((w) => text(j).includes(w));
        const sorted = jobs
            .filter(fits)
            .map((job, at) => ({ job, at, by: this.#by(job) }))
            .sort((a, b) => (a.by < b.by ? -1 : a.by > b.by ? 1 : a.at - b.at))
            .map((r) => r.job);
        const still = this.#still;
        if (still === null) return sorted;
        const place = (j: JobSummary) => (still.includes(j.id) ? still.indexOf(j.id) : still.length);
        return [...sorted].sort((a, b) => place(a) - place(b));
    }

    #by(job: JobSummary): string | number {
        switch (this.#order) {
            case 'hand':
                return 0;
            case 'start':
                return job.latestStart ?? '9999';
            case 'stage':
                return STAGES.indexOf(job.stage);
            case 'model':
                return job.variant ?? job.modelName ?? '~';
            case 'holder':
                return job.holder === '' ? '~' : job.holder.toLowerCase();
        }
    }

    #keep(): void {
        localStorage.setItem(KEY, `${this.#order} ${this.#show}`);
        keepInAddress({
            order: this.#order === 'hand' ? '' : this.#order,
            show: this.#show === 'all' ? '' : this.#show,
        });
    }
}

const text = (j: JobSummary) =>
    [j.serial, j.variant, j.modelName, j.holder, j.now.what, STAGE[j.stage], j.place?.label, `job ${j.id}`]
        .join(' ')
        .toLowerCase();
