/** Where a person goes on, where what they had pressed is not there any more. */
const NEXT = ['[data-now]', '#main'];

const isLost = () => document.activeElement === null || document.activeElement === document.body;

/** After an act, or on a new page: a focus that was lost goes where work continues. */
export function focusNext(): void {
    let looked = 0;
    const look = () => {
        if (document.querySelector('[role=dialog], [role=alertdialog]') !== null) return;
        if (isLost()) {
            const next = NEXT.map((s) => document.querySelector<HTMLElement>(s)).find((e) => e !== null);
            next?.focus({ preventScroll: true });
        }
        // what was pressed may go with the next answer only
        if (++looked < 4) setTimeout(look, 250);
    };
    requestAnimationFrame(() => requestAnimationFrame(look));
}
