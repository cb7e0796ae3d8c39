import type { ActCode } from '../../api/types';

export type Offer = { label: string; run: () => void; disabled?: boolean };

/** What the shown stage would do for the next act, so that its button stands in the Now bar. */
class NextAct {
    #offers = $state<Partial<Record<ActCode, Offer>>>({});

    of(act: ActCode | null): Offer | null {
        return act === null ? null : (this.#offers[act] ?? null);
    }

    /** For an effect of the stage: what it offers now, until that changes or the stage is left. */
    offer(act: ActCode, offer: Offer | null): () => void {
        if (offer === null) delete this.#offers[act];
        else this.#offers[act] = offer;
        return () => delete this.#offers[act];
    }
}

export const nextAct = new NextAct();
