/**
 * While a session has ended, nothing but the sign-in goes out: an answer to an older request would bring the cookie of
 * nobody with it, and undo the sign-in that came meanwhile.
 */
const PATIENCE_MS = 5000;

let opened: Promise<void> | null = null;
let open: () => void = () => undefined;
const underWay = new Set<string>();

export const gate = {
    close(): void {
        opened ??= new Promise((resolve) => (open = resolve));
    },

    open(): void {
        opened = null;
        open();
    },

    /** Lets a request go, or holds it until somebody is signed in. */
    async pass(id: string, path: string): Promise<void> {
        if (path.startsWith('/session')) return;
        if (opened !== null) await opened;
        underWay.add(id);
    },

    answered(id: string): void {
        underWay.delete(id);
    },

    /** Until what went out before has been answered, or is not worth waiting for. */
    async quiet(): Promise<void> {
        const until = Date.now() + PATIENCE_MS;
        while (underWay.size > 0 && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 50));
    },
};
