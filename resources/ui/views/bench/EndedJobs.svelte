<script lang="ts">
    import { createInfiniteQuery } from '@tanstack/svelte-query';
    import { handover } from '../../api/handover';
    import type { JobSummary } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { scannable } from '../../parts/scan';
    import JobRow from './JobRow.svelte';

    /** The latest that have ended, and a search through all of them. */
    let { latest }: { latest: JobSummary[] } = $props();
    let find = $state('');
    const found = createInfiniteQuery(() => ({
        queryKey: ['ended', find],
        queryFn: ({ pageParam }: { pageParam: number | null }) => handover.find(find, pageParam),
        initialPageParam: null as number | null,
        getNextPageParam: (last: { older: number | null }) => last.older ?? undefined,
        enabled: find.trim() !== '',
    }));
    const jobs = $derived(find.trim() === '' ? latest : (found.data?.pages.flatMap((p) => p.jobs) ?? []));
</script>

<div class="mt-6 mb-2 flex items-baseline gap-4">
    <h2 id="ended">Ended</h2>
    <label class="ml-auto"
        ><span class="sr-only">Find an ended job</span><input
            class="field !min-h-10 w-80 text-sm"
            type="search"
            placeholder="Find by serial, model, version, person, reason"
            {@attach scannable()}
            bind:value={find}
        /></label
    >
</div>
{#if find.trim() !== '' && found.isError}<Notice tone="amber">{found.error.message}</Notice>
{:else if find.trim() !== '' && found.isPending}<p class="text-quiet" role="status">Looking…</p>
{:else if jobs.length === 0}<p class="text-sm text-quiet">
        {find.trim() === '' ? 'No job has ended yet.' : `No ended job fits “${find}”.`}
    </p>
{:else}
    <ul class="flex flex-col gap-2" aria-labelledby="ended">
        {#each jobs as job (job.id)}<JobRow {job} />{/each}
    </ul>
{/if}
{#if find.trim() !== '' && found.hasNextPage}<button class="act-quiet mt-2" onclick={() => found.fetchNextPage()}
        >Older ones</button
    >{/if}
