<script lang="ts">
    import { Popover } from 'bits-ui';
    import type { Snippet } from 'svelte';
    import { TERM, TERM_MEANS } from '../api/words';

    /** A term of the trade that explains itself when it is pressed. */
    let { of, children }: { of: keyof typeof TERM; children?: Snippet } = $props();
</script>

<Popover.Root
    ><Popover.Trigger
        class="inline min-h-6 cursor-help text-left underline decoration-dotted decoration-1 underline-offset-4"
        title="What it means"
        >{#if children}{@render children()}{:else}{TERM[of]}{/if}</Popover.Trigger
    ><Popover.Portal
        ><Popover.Content
            class="panel z-40 w-80 max-w-[94vw] text-sm font-normal text-ink shadow-lg"
            sideOffset={6}
            aria-label={TERM[of]}
            ><strong class="first-letter:uppercase">{TERM[of]}</strong><span class="mt-1 block">{TERM_MEANS[of]}</span
            ></Popover.Content
        ></Popover.Portal
    ></Popover.Root
>
