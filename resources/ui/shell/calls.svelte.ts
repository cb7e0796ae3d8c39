import { session } from './session.svelte';

/** Calls by sound and in the page's title when a hand is needed, where the person wants it. */
class Calls {
    #hands = $state(0);
    #audio: AudioContext | null = null;

    get on() {
        return session.person?.preferences.sound ?? false;
    }

    get hands() {
        return this.#hands;
    }

    async toggle(): Promise<void> {
        const chosen = session.person?.preferences;
        if (chosen === undefined) return;
        if (!this.on) this.#sound(); // at the press itself, so that the browser lets it be heard
        await session.prefer({ ...chosen, sound: !this.on });
    }

    /** Told how many jobs need a hand now; calls where there are more than before. */
    heard(hands: number): void {
        if (this.on && hands > this.#hands) this.#sound();
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
