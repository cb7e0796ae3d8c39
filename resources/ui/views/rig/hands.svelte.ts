import { createMutation, useQueryClient } from '@tanstack/svelte-query';
import { notices } from '../../shell/notices.svelte';

/** Does something to the rig and looks at it again; a refusal is told in its own words. */
export function practiceAct<T = void>(call: (arg: T) => Promise<unknown>) {
    const queries = useQueryClient();
    return createMutation(() => ({
        mutationFn: call,
        onError: (e: Error) => void notices.error(e.message),
        onSettled: () => queries.invalidateQueries({ queryKey: ['rig'] }),
    }));
}

export const FAULT_WORDS: Record<string, string> = {
    'cable-out': 'cable comes out at a moment of some work',
    'work-fails': 'work fails at a moment',
    'not-recognised': 'not recognised after its next restart',
    'owner-lock-on': 'owner lock is on after the next install',
    'consent-wanted': 'wants its holder’s consent when it is paired',
    'passcode-wanted': 'wants its passcode when it is paired',
    'content-changes': 'an item changes during the backup',
    'package-flipped': 'the package reaches it with a bit flipped',
    'disk-full': 'has no room for the package',
    'return-refused': 'refuses the next backup that is put back',
    'item-dropped': 'drops one item while it takes a backup in',
    'sync-late': 'sync comes late after its next set-up',
    'link-flaps': 'link flaps for half a minute',
    'battery-falls': 'battery falls by 10 % a minute',
    'bag-flipped': 'a bit of its newest backup flips on the shelf, now',
};
