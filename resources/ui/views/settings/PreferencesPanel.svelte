<script lang="ts">
    import type { Preferences } from '../../api/types';
    import { notices } from '../../shell/notices.svelte';
    import { session } from '../../shell/session.svelte';
    import { calls } from '../../shell/calls.svelte';

    const chosen = $derived(session.person?.preferences);
    const prefer = (change: Partial<Preferences>) => {
        if (chosen !== undefined)
            void session
                .prefer({ ...chosen, ...change })
                .then(() => notices.success('Kept for you, wherever you sign in.'))
                .catch((e: Error) => notices.error(e.message));
    };
</script>

{#if chosen}
    <section class="panel" aria-labelledby="preferences" id="at-preferences">
        <h2 id="preferences" class="mb-1">Your preferences</h2>
        <div class="grid gap-x-6 @xl:grid-cols-2">
            <label class="flex min-h-11 items-center gap-3"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    name="shortcuts"
                    checked={chosen.shortcuts}
                    onchange={(e) => prefer({ shortcuts: e.currentTarget.checked })}
                />Shortcuts of one letter (Ctrl K stays)</label
            >
            <label class="flex min-h-11 items-center gap-3"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    name="sound"
                    checked={chosen.sound}
                    onchange={() => void calls.toggle()}
                />A sound when a hand is needed</label
            >
            <label class="flex min-h-11 items-center gap-3"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    name="close"
                    checked={chosen.density === 'close'}
                    onchange={(e) => prefer({ density: e.currentTarget.checked ? 'close' : 'roomy' })}
                />Closer rows, more on one screen</label
            >
            <label class="flex min-h-11 items-center gap-3"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    name="guided"
                    checked={chosen.guided}
                    onchange={(e) => prefer({ guided: e.currentTarget.checked })}
                />The guide through a first crossing</label
            >
        </div>
    </section>
{/if}
