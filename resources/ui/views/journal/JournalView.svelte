<script lang="ts">
    import { createInfiniteQuery } from '@tanstack/svelte-query';
    import { link } from 'svelte-spa-router';
    import { csvAddress, journal, type JournalFilter } from '../../api/journal';
    import { instant } from '../../parts/format';
    import DayField from '../../parts/DayField.svelte';
    import { keepInAddress, queryOf } from '../../parts/query';
    import { scannable } from '../../parts/scan';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import ActRow from './ActRow.svelte';

    let serial = $state(queryOf('serial'));
    let words = $state(queryOf('words'));
    let who = $state(queryOf('who'));
    let act = $state(queryOf('act'));
    let from = $state(queryOf('from'));
    let until = $state(queryOf('until'));
    $effect(() => keepInAddress({ serial, words, who, act, from, until }));
    const filter = $derived<JournalFilter>({
        serial: serial.trim(),
        words: words.trim(),
        who,
        act,
        from: from === '' ? '' : instant(`${from}T00:00`),
        until: until === '' ? '' : instant(`${until}T23:59:59`),
    });
    const pages = createInfiniteQuery(() => ({
        queryKey: ['journal', filter],
        queryFn: ({ pageParam }: { pageParam: number | null }) => journal.page(filter, pageParam),
        initialPageParam: null as number | null,
        getNextPageParam: (last: { older: number | null }) => last.older ?? undefined,
        refetchInterval: 10_000,
    }));
    const acts = $derived(pages.data?.pages.flatMap((p) => p.acts) ?? []);
    const first = $derived(pages.data?.pages[0]);
    const isFiltered = $derived(Object.values(filter).some((v) => v !== ''));
    function clear() {
        serial = words = who = act = from = until = '';
    }
</script>

<svelte:head><title>Journal · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-baseline gap-4">
    <h1>Journal</h1>
    <p class="text-quiet">Every act on every device, with its evidence. It can only be added to.</p>
    {#if session.leads}<a class="act-quiet ml-auto" href="#/reports">Reports</a>{/if}
    <a class="act-quiet {session.leads ? '' : 'ml-auto'}" href={csvAddress(filter)} download="journal.csv"
        >{isFiltered ? 'These as CSV' : 'All as CSV'}</a
    >
</div>
<form class="mb-3 flex flex-wrap items-end gap-3 text-sm" aria-label="Filter" onsubmit={(e) => e.preventDefault()}>
    <label class="flex flex-col"
        >Device<input class="field w-36 font-mono" name="serial" placeholder="Serial" bind:value={serial} /></label
    >
    <label class="flex flex-col"
        >Who<select class="field" name="who" bind:value={who}
            ><option value="">Everybody</option>{#each first?.people ?? [] as p (p)}<option>{p}</option>{/each}</select
        ></label
    >
    <label class="flex flex-col"
        >Act<select class="field max-w-52" name="act" bind:value={act}
            ><option value="">All acts</option>{#each first?.codes ?? [] as c (c)}<option>{c}</option>{/each}</select
        ></label
    >
    <label class="flex flex-col">From<DayField name="from" label="From this day" bind:value={from} /></label>
    <label class="flex flex-col">Until<DayField name="until" label="Until this day" bind:value={until} /></label>
    <label class="flex min-w-44 flex-1 flex-col"
        >Words<input
            class="field min-w-40"
            type="search"
            {@attach scannable()}
            name="words"
            placeholder="In words, evidence, serial"
            bind:value={words}
        /></label
    >
    {#if isFiltered}<button type="button" class="act-quiet" onclick={clear}>Show all</button>{/if}
</form>
{#if pages.isPending}<p class="text-quiet" role="status">Reading the Journal…</p>
{:else if !pages.data}<Notice tone="amber">{pages.error?.message}</Notice>
{:else}
    {#if pages.isError}<div class="mb-3"><Notice tone="amber">{pages.error.message}</Notice></div>{/if}
    <section class="panel overflow-x-auto p-2" aria-label="Acts">
        {#if acts.length === 0}<p class="p-3 text-quiet">
                {pages.hasNextPage
                    ? 'No act fits among those that were read so far.'
                    : isFiltered
                      ? 'No act fits this filter.'
                      : 'Nothing was done yet. The first device that is taken in is the first line.'}
            </p>
        {:else}
            <table class="w-full text-sm [&_td]:px-2 [&_td]:py-1 [&_td]:align-top [&_th]:px-2">
                <thead class="text-left text-quiet"
                    ><tr
                        ><th class="w-44 font-normal">When</th><th class="w-32 font-normal">Who</th><th
                            class="font-normal">Did what</th
                        ><th class="w-28 font-normal">Device</th><th class="w-20 font-normal">Job</th></tr
                    ></thead
                >
                <tbody
                    >{#each acts as a (a.id)}<ActRow act={a} />{/each}</tbody
                >
            </table>
        {/if}
        {#if pages.hasNextPage}<button
                class="act-quiet m-2"
                disabled={pages.isFetchingNextPage}
                onclick={() => pages.fetchNextPage()}>Older acts</button
            >{:else if acts.length > 0}<p class="p-2 text-sm text-quiet">
                This is all{isFiltered ? ' that fits' : ', from the beginning'}.
            </p>{/if}
    </section>
{/if}
<p class="mt-2 text-sm text-quiet">
    Jobs that have ended are found on the <a class="underline underline-offset-4" href="/" use:link>Bench</a>.
</p>
