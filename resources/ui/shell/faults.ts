import type { Problem } from '../api/types';

const AT_ONCE_MS = 400;

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

/** Shows what a refusal says of a field at that field of the form that was sent, and puts the focus there. */
class Faults {
    #sent: { form: HTMLFormElement; at: number } | null = null;
    #shown: { field: Field; words: HTMLElement }[] = [];

    constructor() {
        document.addEventListener(
            'submit',
            (event) => {
                if (!(event.target instanceof HTMLFormElement)) return;
                this.clear();
                delete event.target.dataset.told;
                this.#sent = { form: event.target, at: Date.now() };
            },
            true,
        );
        document.addEventListener('input', (event) => this.clear(event.target), true);
    }

    /** The form from which a request goes out that is sent now. */
    form(): HTMLFormElement | null {
        return this.#sent !== null && Date.now() - this.#sent.at < AT_ONCE_MS ? this.#sent.form : null;
    }

    /** @returns whether the form has such a field */
    show(form: HTMLFormElement, problem: Problem): boolean {
        const found = (problem.errors ?? []).flatMap(({ pointer, message }) => {
            const field = this.#field(form, pointer.split('/').filter(Boolean));
            return field === null ? [] : [{ field, message }];
        });
        for (const { field, message } of found) this.#mark(field, message);
        // the form's own words are not said beside those at its fields, nor when these go
        if (found.length > 0) form.dataset.told = '';
        found[0]?.field.focus();
        return found.length > 0;
    }

    clear(of: EventTarget | null = null): void {
        const gone = this.#shown.filter((s) => of === null || s.field === of || !s.field.isConnected);
        for (const { field, words } of gone) {
            field.removeAttribute('aria-invalid');
            field.removeAttribute('aria-describedby');
            words.remove();
        }
        this.#shown = this.#shown.filter((s) => !gone.includes(s));
    }

    #field(form: HTMLFormElement, pointer: string[]): Field | null {
        for (const name of pointer.reverse()) {
            const safe = CSS.escape(name);
            const field = form.querySelector<Field>(`[name="${safe}"], [data-about~="${safe}"]`);
            if (field !== null && !field.disabled) return field;
        }
        return null;
    }

    #mark(field: Field, message: string): void {
        if (this.#shown.some((s) => s.field === field)) return;
        const words = Object.assign(document.createElement('p'), {
            id: `fault-${Date.now()}-${this.#shown.length}`,
            className: 'field-fault',
            textContent: message,
        });
        words.setAttribute('role', 'alert');
        field.setAttribute('aria-invalid', 'true');
        field.setAttribute('aria-describedby', words.id);
        (field.closest('label') ?? field).insertAdjacentElement('afterend', words);
        this.#shown.push({ field, words });
    }
}

export const faults = new Faults();
