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
    /** Its words are the server's, and not a screen's. */
    fromServer: boolean;
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

    /** A screen's own words for what was done; they stand in the place of the server's. */
    success(words: string, undo: Undo | null = null): void {
        const last = this.#list[0];
        if (last?.fromServer === true && Date.now() - last.at.getTime() < TOGETHER_MS) {
            shown.dismiss(last.id);
            this.#list = this.#list.slice(1);
        }
        this.#add({ words, good: true, undo });
    }

    /** It stays longer, since it says what to do. */
    error(words: string, options: { duration?: number; way?: Way | null } = {}): void {
        this.#add({ words, good: false, way: options.way ?? null }, options.duration ?? SHOWN_MS * 1.5);
    }

    /** A refusal in its own words, with the way to what mends it; what stands at its field is not said twice. */
    refused(e: Error): void {
        const told = e as Error & { code?: string; atField?: boolean };
        if (told.atField !== true) this.error(e.message, { way: wayOf(told.code) });
    }

    /** What the server says that it did. */
    done(words: string): void {
        this.#add({ words, good: true, fromServer: true });
    }

    /** The act that was answered last can be taken back. */
    offerUndo(words: string, undo: Undo): void {
        this.success(words, undo);
    }

    seen(): void {
        this.#unseen = 0;
    }

    #add(told: Partial<Notice> & { words: string; good: boolean }, duration = SHOWN_MS): void {
        const notice = { undo: null, way: null, fromServer: false, ...told, id: this.#next++, at: new Date() };
        const { words, good, undo, way } = notice;
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
