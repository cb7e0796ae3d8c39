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

{#snippet box(name: string, words: string, checked: boolean, choose: (on: boolean) => void)}
    <label class="flex min-h-11 items-center gap-3"
        ><input
            type="checkbox"
            class="h-5 w-5 accent-[var(--jade)]"
            {name}
            {checked}
            onchange={(e) => choose(e.currentTarget.checked)}
        />{words}</label
    >
{/snippet}

{#if chosen}
    <section class="panel" aria-labelledby="preferences" id="at-preferences">
        <h2 id="preferences" class="mb-1">Your preferences</h2>
        <div class="grid gap-x-6 @xl:grid-cols-2">
            {@render box('shortcuts', 'Shortcuts of one letter (Ctrl K stays)', chosen.shortcuts, (on) =>
                prefer({ shortcuts: on }),
            )}
            {@render box('sound', 'A sound when a hand is needed', chosen.sound, () => void calls.toggle())}
            {@render box('close', 'Closer rows, more on one screen', chosen.density === 'close', (on) =>
                prefer({ density: on ? 'close' : 'roomy' }),
            )}
            {@render box('guided', 'The guide through a first crossing', chosen.guided, (on) => prefer({ guided: on }))}
        </div>
    </section>
{/if}
