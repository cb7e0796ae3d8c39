const STILL_MS = 60_000;

/** Whether anybody has touched this page of late: what it asks by itself keeps no session open. */
class Hands {
    #last = Date.now();

    constructor() {
        for (const event of ['pointerdown', 'pointermove', 'keydown', 'wheel', 'touchstart']) {
            window.addEventListener(event, () => (this.#last = Date.now()), { passive: true, capture: true });
        }
    }

    get areStill(): boolean {
        return Date.now() - this.#last > STILL_MS;
    }
}

export const hands = new Hands();
