const KEY = 'jade-step-calls';

/** Whether this computer calls by sound and in the page's title when a hand is needed. Chosen on each computer. */
class Calls {
    #on = $state(localStorage.getItem(KEY) === 'on');
    #hands = $state(0);
    #audio: AudioContext | null = null;

    get on() {
        return this.#on;
    }

    get hands() {
        return this.#hands;
    }

    toggle(): void {
        this.#on = !this.#on;
        localStorage.setItem(KEY, this.#on ? 'on' : 'off');
        if (this.#on) this.#sound();
    }

    /** Told how many jobs need a hand now; calls where there are more than before. */
    heard(hands: number): void {
        if (this.#on && hands > this.#hands) this.#sound();
        this.#hands = hands;
    }

    /** Two soft tones, made here. A browser that has not been touched yet stays silent. */
    #sound(): void {
        this.#audio ??= new AudioContext();
        const audio = this.#audio;
        void audio.resume();
        [523, 659].forEach((pitch, i) => {
            const tone = audio.createOscillator();
            const volume = audio.createGain();
            const at = audio.currentTime + i * 0.18;
            tone.frequency.value = pitch;
            volume.gain.setValueAtTime(0, at);
            volume.gain.linearRampToValueAtTime(0.12, at + 0.02);
            volume.gain.exponentialRampToValueAtTime(0.001, at + 0.35);
            tone.connect(volume).connect(audio.destination);
            tone.start(at);
            tone.stop(at + 0.4);
        });
    }
}

export const calls = new Calls();
