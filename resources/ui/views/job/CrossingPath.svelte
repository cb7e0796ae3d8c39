<script lang="ts">
    import type { Route } from '../../api/types';
    import { MOVE } from '../../api/words';
    import { version } from '../../parts/format';

    let { route }: { route: Route } = $props();
</script>

<span class="flex items-center gap-1.5" data-crossing>
    <span class="rounded-full bg-sunken px-2.5 py-0.5 font-semibold">{version(route.legs[0]?.from.version ?? '')}</span>
    {#each route.legs as leg, i (i)}
        <span class="flex min-w-8 flex-1 items-center gap-1" title={MOVE[leg.move]}>
            <span class="sr-only">{MOVE[leg.move]} to</span>
            <span class="h-0 flex-1 border-t-2 border-jade {leg.move === 'erase-install' ? '' : 'border-dotted'}"
            ></span>
            {#if leg.move === 'erase-install'}
                <svg viewBox="0 0 12 24" class="h-6 w-3 shrink-0" aria-hidden="true"
                    ><path d="M6 0c-6 6 6 9 0 12s6 6 0 12" fill="none" stroke="var(--loss)" stroke-width="2.5" /></svg
                >
                <span class="h-0 flex-1 border-t-2 border-jade"></span>
            {/if}
        </span>
        <span
            class="rounded-full px-2.5 py-0.5 font-semibold {i === route.legs.length - 1
                ? 'bg-jade text-on-jade'
                : 'border border-jade'}">{version(leg.to.version)}</span
        >
    {/each}
</span>
