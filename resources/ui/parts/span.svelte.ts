const DAY = 86_400_000;
const SHORTEST = DAY;

/** The span of time that a window chart shows. Zooms about now, pans by a quarter, and never leaves what is known. */
export class Span {
    #from = $state(0);
    #until = $state(0);
    #first = $state(0);
    #last = $state(0);
    #now = $state(0);
    #whole = true;

    get from() {
        return this.#from;
    }

    get until() {
        return this.#until;
    }

    get isWhole() {
        return this.#from <= this.#first && this.#until >= this.#last;
    }

    /** What there is to show; a span that was chosen stays. */
    know(starts: number[], ends: number[], now: number): void {
        this.#now = now;
        this.#first = Math.min(now - 120 * DAY, ...starts) - 5 * DAY;
        this.#last = Math.max(now + 45 * DAY, ...ends.map((e) => e + 10 * DAY));
        if (this.#whole) this.showAll();
    }

    showAll(): void {
        this.#from = this.#first;
        this.#until = this.#last;
        this.#whole = true;
    }

    /** A factor below 1 shows less time. The point that stays in place is now where it is shown, else the middle. */
    zoom(factor: number): void {
        const pivot = this.#now > this.#from && this.#now < this.#until ? this.#now : (this.#from + this.#until) / 2;
        const length = Math.min(this.#last - this.#first, Math.max(SHORTEST, (this.#until - this.#from) * factor));
        const share = (pivot - this.#from) / (this.#until - this.#from);
        this.#set(pivot - length * share, length);
    }

    pan(share: number): void {
        this.#set(this.#from + (this.#until - this.#from) * share, this.#until - this.#from);
    }

    /** @returns whether the key meant something here */
    key(key: string): boolean {
        switch (key) {
            case 'ArrowLeft':
                this.pan(-0.25);
                return true;
            case 'ArrowRight':
                this.pan(0.25);
                return true;
            case '+':
            case '=':
                this.zoom(0.6);
                return true;
            case '-':
                this.zoom(1 / 0.6);
                return true;
            case '0':
            case 'Home':
                this.showAll();
                return true;
            default:
                return false;
        }
    }

    #set(from: number, length: number): void {
        this.#whole = false;
        this.#from = Math.max(this.#first, Math.min(from, this.#last - length));
        this.#until = this.#from + length;
    }
}
