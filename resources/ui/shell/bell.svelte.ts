/** The browser's own notifications, of hands that are wanted. Nobody's browser is asked before they want it. */
class Bell {
    #on = $state(false);
    #told = new Set<string>();

    set on(on: boolean) {
        this.#on = on;
    }

    get on(): boolean {
        return this.#on && this.isAllowed;
    }

    get isAllowed(): boolean {
        return 'Notification' in window && Notification.permission === 'granted';
    }

    async allow(): Promise<boolean> {
        if (!('Notification' in window)) return false;
        return this.isAllowed || (await Notification.requestPermission()) === 'granted';
    }

    /** Once for each; one that is wanted no more may be told of again. Nothing is told while the page is looked at. */
    heard(wanted: { key: string; words: string; page: string }[]): void {
        const keys = new Set(wanted.map((w) => w.key));
        for (const old of this.#told) if (!keys.has(old)) this.#told.delete(old);
        for (const w of wanted.filter((one) => !this.#told.has(one.key))) {
            this.#told.add(w.key);
            if (!this.on || document.hasFocus()) continue;
            const shown = new Notification(w.words, { tag: w.key });
            shown.onclick = () => {
                window.focus();
                window.location.hash = w.page;
                shown.close();
            };
        }
    }
}

export const bell = new Bell();
