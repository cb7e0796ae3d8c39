<script lang="ts">
    import { createInfiniteQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { replace } from 'svelte-spa-router';
    import { shelf, type BagOrder } from '../../api/shelf';
    import type { Shelf } from '../../api/types';
    import { bytes } from '../../parts/format';
    import { keepInAddress, queryOf } from '../../parts/query';
    import { scannable } from '../../parts/scan';
    import DropPlace from '../../parts/DropPlace.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import BagRow from './BagRow.svelte';
    import DuePanel from './DuePanel.svelte';
    import ImportStrip from './ImportStrip.svelte';

    const BUSY_MS = 2000;
    const QUIET_MS = 15_000;
    const columns: { name: string; by: BagOrder }[] = [
        { name: 'Backup', by: 'label' },
        { name: 'Device', by: 'serial' },
        { name: 'Taken', by: 'taken' },
        { name: 'Made on', by: 'version' },
        { name: 'State', by: 'state' },
        { name: 'Size', by: 'size' },
    ];
    let find = $state(queryOf('find'));
    let sort = $state({
        by: columns.find((c) => c.by === queryOf('sort'))?.by ?? 'taken',
        down: queryOf('up') === '',
    });
    $effect(() => keepInAddress({ find, sort: sort.by === 'taken' ? '' : sort.by, up: sort.down ? '' : '1' }));
    $effect(() => {
        // labels that were printed earlier lead here
        const named = queryOf('bag');
        if (named !== '') void replace(`/shelf/${encodeURIComponent(named)}`);
    });
    type Copies = Shelf['secondCopies'];
    const moves = (page: Shelf) =>
        page.bags.some((b) => b.state === 'writing' || b.checkState !== null) ||
        Object.values(page.secondCopies).some((c) => c.state === 'carrying' || c.state === 'returning') ||
        page.imports.some((i) => i.state === 'queued' || i.state === 'running');
    const pages = createInfiniteQuery(() => ({
        queryKey: ['shelf', 'pages', find.trim(), sort.by, sort.down],
        queryFn: ({ pageParam }: { pageParam: string | null }) =>
            shelf.page({
                find: find.trim(),
                sort: sort.by,
                up: sort.down ? '0' : '1',
                ...(pageParam === null ? {} : { after: pageParam }),
            }),
        initialPageParam: null as string | null,
        getNextPageParam: (last: Shelf) => last.next ?? undefined,
        placeholderData: keepPreviousData,
        refetchInterval: (q) => (q.state.data?.pages.some(moves) === true ? BUSY_MS : QUIET_MS),
    }));
    const first = $derived(pages.data?.pages[0]);
    const bags = $derived(pages.data?.pages.flatMap((p) => p.bags) ?? []);
    const copies = $derived(Object.assign({}, ...(pages.data?.pages.map((p) => p.secondCopies) ?? [])) as Copies);
    let brought = $state<File | null>(null);
    let marked = $state<string[]>([]);
    const mark = (id: string) =>
        (marked = marked.includes(id) ? marked.filter((m) => m !== id) : [...marked, id].slice(-2));
</script>

<svelte:head><title>Shelf · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-4">
    <h1>Shelf</h1>
    <label class="flex-1"
        ><span class="sr-only">Find a bag</span><input
            class="field w-full max-w-md"
            type="search"
            placeholder="Find by name, device, version, state, kind"
            {@attach scannable()}
            bind:value={find}
        /></label
    >
    {#if first}{@const s = first.space}
        <p class="text-sm text-quiet">
            {bytes(s.taken)} taken, {bytes(s.saved)} saved by sharing, {bytes(s.free)} free{s.daysLeft === null
                ? ''
                : `; at this rate it lasts ${s.daysLeft > 3650 ? 'for years' : `about ${Math.round(s.daysLeft)} days`}`}
        </p>{/if}
</div>
{#if pages.isPending}<p class="text-quiet" role="status">Looking at the shelf…</p>
{:else if !first}<Notice tone="amber">{pages.error?.message}</Notice>
{:else}
    {#if pages.isError}<div class="mb-3"><Notice tone="amber">{pages.error.message}</Notice></div>{/if}
    <DropPlace
        says={session.mayAct
            ? 'Let go: the bag is read strictly, and taken in if it is sound.'
            : 'Your role looks on: a technician brings bags in.'}
        ontake={(f) => {
            if (session.mayAct) brought = f;
        }}
        ><div class="grid items-start gap-4 @6xl:grid-cols-[1fr_22rem]">
            <section class="panel overflow-x-auto p-2" aria-label="Bags">
                {#if bags.length === 0 && find.trim() === ''}<p class="p-3 text-quiet">
                        No bag is on the shelf. A job makes one when its route is taken; or bring one in.
                    </p>
                {:else if bags.length === 0}<p class="p-3 text-quiet">
                        {pages.hasNextPage
                            ? `No bag fits “${find}” among those that were read so far.`
                            : `No bag fits “${find}”.`}
                    </p>
                {:else}
                    <table class="w-full text-sm [&_td]:px-2 [&_th]:px-2">
                        <thead class="text-left text-quiet"
                            ><tr
                                >{#each columns as c (c.name)}<th
                                        class="font-normal {c.name === 'Size' ? 'text-right' : ''}"
                                        aria-sort={sort.by === c.by ? (sort.down ? 'descending' : 'ascending') : 'none'}
                                        ><button
                                            class="min-h-11 min-w-11 [text-align:inherit]"
                                            onclick={() =>
                                                (sort = {
                                                    by: c.by,
                                                    down: sort.by === c.by ? !sort.down : false,
                                                })}>{c.name}{sort.by === c.by ? (sort.down ? ' ↓' : ' ↑') : ''}</button
                                        ></th
                                    >{/each}<th class="text-right font-normal">Compare</th></tr
                            ></thead
                        >
                        <tbody
                            >{#each bags as bag (bag.id)}<BagRow
                                    {bag}
                                    copy={copies[bag.id] ?? null}
                                    marked={marked.includes(bag.id)}
                                    onmark={() => mark(bag.id)}
                                />{/each}</tbody
                        >
                    </table>
                {/if}
                {#if pages.hasNextPage}<button
                        class="act-quiet m-2"
                        disabled={pages.isFetchingNextPage}
                        onclick={() => pages.fetchNextPage()}>More bags</button
                    >{/if}
            </section>
            <div class="flex flex-col gap-4">
                <DuePanel leads={session.leads} />
                <section class="panel py-3" aria-labelledby="compare">
                    <h2 id="compare" class="mb-1">Compare two</h2>
                    <p class="text-sm text-quiet">
                        What does one backup have that the other lacks? {marked.length === 0
                            ? 'Mark two in the list.'
                            : marked.length === 1
                              ? 'One is marked; mark another.'
                              : 'Two are marked.'}
                    </p>
                    <a
                        class="{marked.length === 2 ? 'act' : 'act-quiet'} mt-2"
                        href="#/shelf/compare/{encodeURIComponent(marked[0] ?? '-')}/{encodeURIComponent(
                            marked[1] ?? '-',
                        )}">{marked.length === 2 ? 'Compare the two' : 'Choose them there'}</a
                    >
                </section>
                {#if session.mayAct}<ImportStrip held={first} bind:dropped={brought} />{/if}
            </div>
        </div></DropPlace
    >
{/if}
