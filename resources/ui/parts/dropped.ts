import type { Attachment } from 'svelte/attachments';

/** Takes files that are dropped; while one hangs over the place, `over` says so, so that it can tell what will be. */
export function dropped(take: (file: File) => void, over: (is: boolean) => void): Attachment<HTMLElement> {
    return (place) => {
        let depth = 0;
        const carries = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false;
        const enter = (e: DragEvent) => {
            if (!carries(e)) return;
            e.preventDefault();
            if (depth++ === 0) over(true);
        };
        const leave = (e: DragEvent) => {
            if (!carries(e)) return;
            if (--depth <= 0) {
                depth = 0;
                over(false);
            }
        };
        const stay = (e: DragEvent) => {
            if (carries(e)) e.preventDefault();
        };
        const drop = (e: DragEvent) => {
            if (!carries(e)) return;
            e.preventDefault();
            depth = 0;
            over(false);
            const file = e.dataTransfer?.files[0];
            if (file !== undefined) take(file);
        };
        const all = [
            ['dragenter', enter],
            ['dragleave', leave],
            ['dragover', stay],
            ['drop', drop],
        ] as const;
        for (const [name, heard] of all) place.addEventListener(name, heard);
        return () => {
            for (const [name, heard] of all) place.removeEventListener(name, heard);
        };
    };
}
