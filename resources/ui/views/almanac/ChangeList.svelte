<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { almanac } from '../../api/almanac';
    import Notice from '../../parts/Notice.svelte';
    import { dayAndClock } from '../../parts/format';

    let { hardwareId }: { hardwareId: string | null } = $props();
    let mine = $state(true);
    const changes = createQuery(() => ({
        queryKey: ['almanac', 'changes', mine ? hardwareId : null],
        queryFn: () => almanac.changes(mine ? hardwareId : null),
        refetchInterval: 60_000,
    }));
</script>

<div class="mb-2 flex items-center gap-4">
    <h2 id="changes">What changed</h2>
    <label class="ml-auto flex items-center gap-2 text-sm"
        ><input type="checkbox" class="h-4 w-4 accent-[var(--jade)]" bind:checked={mine} />only for this model</label
    >
</div>
{#if changes.isError}<Notice tone="amber">{changes.error.message}</Notice>
{:else if changes.data?.changes.length === 0}<p class="text-sm text-quiet">
        Nothing has changed since the first catalogue was taken in. Every refresh adds here what it changed.
    </p>
{:else}
    <ul class="max-h-64 overflow-auto text-sm" aria-labelledby="changes">
        {#each changes.data?.changes ?? [] as c (c.id)}<li class="border-t border-edge py-1.5">
                <span class="block">{c.words}</span><span class="text-quiet"
                    >noticed {dayAndClock(c.noticedAt)}{c.vouched ? '' : ', from a file'}</span
                > <span class="code">{c.code}</span>
            </li>{/each}
    </ul>
{/if}
