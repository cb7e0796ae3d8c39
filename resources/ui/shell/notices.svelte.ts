import { toast as shown } from 'svelte-sonner';
import { wayOf } from '../parts/mends';

export type Way = { href: string; words: string };
export type Notice = {
    id: number;
    at: Date;
    words: string;
    good: boolean;
    undo: Undo | null;
    way: Way | null;
};
export type Undo = { label: string; run: () => Promise<unknown> };

const KEPT = 30;
const SHOWN_MS = 8000;
const TOGETHER_MS = 1500;

/** What was answered to acts: shown for a while, and kept as a list of the last ones. */
class Notices {
    #list = $state<Notice[]>([]);
    #unseen = $state(0);
    #next = 1;

    /** The latest first. */
    get list() {
        return this.#list;
    }

    get unseen() {
        return this.#unseen;
    }

    success(words: string, undo: Undo | null = null): void {
        this.#add(words, true, undo);
    }

    /** It stays longer, since it says what to do. */
    error(words: string, options: { duration?: number; way?: Way | null } = {}): void {
        this.#add(words, false, null, options.duration ?? SHOWN_MS * 1.5, options.way ?? null);
    }

    /** A refusal in its own words, with the way to what mends it; what stands at its field is not said twice. */
    refused(e: Error): void {
        const told = e as Error & { code?: string; atField?: boolean };
        if (told.atField !== true) this.error(e.message, { way: wayOf(told.code) });
    }

    /** What the server says that it did, which a screen may have said in its own words already. */
    done(words: string): void {
        const last = this.#list[0];
        if (last !== undefined && last.good && Date.now() - last.at.getTime() < TOGETHER_MS) return;
        this.#add(words, true, null);
    }

    /** The act that was answered last can be taken back. */
    offerUndo(words: string, undo: Undo): void {
        const last = this.#list[0];
        if (last !== undefined && last.good && Date.now() - last.at.getTime() < TOGETHER_MS) {
            shown.dismiss(last.id);
            this.#list = this.#list.slice(1);
        }
        this.#add(words, true, undo);
    }

    seen(): void {
        this.#unseen = 0;
    }

    #add(words: string, good: boolean, undo: Undo | null, duration = SHOWN_MS, way: Way | null = null): void {
        const notice = { id: this.#next++, at: new Date(), words, good, undo, way };
        this.#list = [notice, ...this.#list].slice(0, KEPT);
        this.#unseen++;
        const action =
            undo !== null
                ? { label: undo.label, onClick: () => void this.takeBack(notice) }
                : way !== null
                  ? { label: way.words, onClick: () => void (window.location.hash = way.href) }
                  : undefined;
        const options = { id: notice.id, duration, ...(action && { action }) };
        if (good) shown.success(words, options);
        else shown.error(words, options);
    }

    async takeBack(notice: Notice): Promise<void> {
        const undo = notice.undo;
        if (undo === null) return;
        this.#list = this.#list.map((n) => (n.id === notice.id ? { ...n, undo: null } : n));
        await undo.run().catch((e: Error) => this.error(e.message));
    }
}

export const notices = new Notices();
