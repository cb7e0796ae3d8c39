import { session } from './session.svelte';

const CONTROLS = 'input, textarea, select, button, a, summary, [role=dialog], [role=alertdialog], [contenteditable]';

/** Whether a key of one letter is a shortcut here: not where they are switched off, nor on a focused control. */
export function isShortcut(event: KeyboardEvent): boolean {
    if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return false;
    if (session.person?.preferences.shortcuts === false) return false;
    const at = event.target instanceof HTMLElement ? event.target : null;
    return at?.closest(CONTROLS) == null && document.querySelector('[role=dialog], [role=alertdialog]') === null;
}
