<script lang="ts">
    import { FileDown } from '@lucide/svelte';
    import type { Snippet } from 'svelte';
    import { dropped } from './dropped';

    /** A part of a page onto which a file may be dropped; what will happen is said while it hangs there. */
    let { says, ontake, children }: { says: string; ontake: (file: File) => void; children: Snippet } = $props();
    let over = $state(false);
</script>

<div
    class="relative"
    data-drop
    {@attach dropped(
        (f) => ontake(f),
        (is) => (over = is),
    )}
>
    {@render children()}
    {#if over}<div
            class={[
                'pointer-events-none absolute inset-0 z-10 flex items-center justify-center gap-3 rounded-lg p-4',
                'border-2 border-dashed border-jade bg-jade-wash/95 text-center text-lg font-semibold',
            ]}
            role="status"
        >
            <FileDown size="1.4em" aria-hidden="true" />{says}
        </div>{/if}
</div>
