import type { Attachment } from 'svelte/attachments';
import { push } from 'svelte-spa-router';
import { placeOf } from '../api/scan';

/** A scanner types a label's code into a field and ends with Enter: where the code is one of ours, it leads there. */
export function scannable(then: () => void = () => {}): Attachment<HTMLInputElement> {
    return (field) => {
        const onkeydown = async (event: KeyboardEvent) => {
            if (event.key !== 'Enter' || field.value.trim() === '') return;
            const place = await placeOf(field.value.trim()).catch(() => null);
            if (place === null) return;
            then();
            void push(place);
        };
        field.addEventListener('keydown', onkeydown);
        return () => field.removeEventListener('keydown', onkeydown);
    };
}
