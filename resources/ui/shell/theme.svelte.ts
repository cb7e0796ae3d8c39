const KEY = 'jade-step-theme';

/** Light or dark: what the person chose here, else what the system says. */
class Theme {
    #dark = $state(
        localStorage.getItem(KEY) === 'dark' ||
            (localStorage.getItem(KEY) === null && matchMedia('(prefers-color-scheme: dark)').matches),
    );

    get dark() {
        return this.#dark;
    }

    apply(): void {
        document.documentElement.dataset.theme = this.#dark ? 'dark' : 'light';
    }

    toggle(): void {
        this.#dark = !this.#dark;
        localStorage.setItem(KEY, this.#dark ? 'dark' : 'light');
        this.apply();
    }
}

export const theme = new Theme();
