<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { replace } from 'svelte-spa-router';
    import { shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { bytes, version } from '../../parts/format';
    import { keepInAddress, queryOf } from '../../parts/query';
    import { scannable } from '../../parts/scan';
    import DropPlace from '../../parts/DropPlace.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import BagRow from './BagRow.svelte';
    import ImportStrip from './ImportStrip.svelte';

    const held = createQuery(() => ({ queryKey: ['shelf'], queryFn: shelf.show, refetchInterval: 3000 }));
    const columns: { name: string; by: (b: Bag) => string | number }[] = [
        { name: 'Backup', by: (b) => b.label },
        { name: 'Device', by: (b) => b.serial },
        { name: 'Taken', by: (b) => b.takenAt },
        { name: 'Made on', by: (b) => b.madeOn },
        { name: 'State', by: (b) => b.state },
        { name: 'Size', by: (b) => b.bytes ?? 0 },
    ];
    let find = $state(queryOf('find'));
    let sort = $state({ name: queryOf('sort') || 'Taken', down: queryOf('up') === '' });
    $effect(() => keepInAddress({ find, sort: sort.name === 'Taken' ? '' : sort.name, up: sort.down ? '' : '1' }));
    $effect(() => {
        // labels that were printed earlier lead here
        const named = queryOf('bag');
        if (named !== '') void replace(`/shelf/${encodeURIComponent(named)}`);
    });
    let brought = $state<File | null>(null);
    let marked = $state<string[]>([]);
    const words = (b: Bag) =>
        [
            b.label,
            b.id,
            b.serial,
            b.hardwareId,
            version(b.madeOn),
            b.madeOn,
            version(b.declaredVersion),
            b.state,
            b.encryption === 'openpgp' ? 'encrypted' : 'plain',
            b.source,
            ...Object.keys(b.counts),
        ]
            .join(' ')
            .toLowerCase();
    const shown = $derived.by(() => {
        const by = columns.find((c) => c.name === sort.name)?.by ?? ((b: Bag) => b.takenAt);
        const terms = find.toLowerCase().split(/\s+/).filter(Boolean);
        return (held.data?.bags ?? [])
            .filter((b) => terms.every((t) => words(b).includes(t)))
            .sort((a, b) => (by(a) < by(b) ? -1 : by(a) > by(b) ? 1 : 0) * (sort.down ? -1 : 1));
    });
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
    {#if held.data}{@const s = held.data.space}
        <p class="text-sm text-quiet">
            {bytes(s.taken)} taken, {bytes(s.saved)} saved by sharing, {bytes(s.free)} free{s.daysLeft === null
                ? ''
                : `; at this rate it lasts ${s.daysLeft > 3650 ? 'for years' : `about ${Math.round(s.daysLeft)} days`}`}
        </p>{/if}
</div>
{#if held.isPending}<p class="text-quiet" role="status">Looking at the shelf…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    {#if held.isError}<div class="mb-3"><Notice tone="amber">{held.error.message}</Notice></div>{/if}
    <DropPlace
        says={session.mayAct
            ? 'Let go: the bag is read strictly, and taken in if it is sound.'
            : 'Your role looks on: a technician brings bags in.'}
        ontake={(f) => {
            if (session.mayAct) brought = f;
        }}
        ><div class="grid items-start gap-4 @6xl:grid-cols-[1fr_22rem]">
            <section class="panel overflow-x-auto p-2" aria-label="Bags">
                {#if held.data.bags.length === 0}<p class="p-3 text-quiet">
                        No bag is on the shelf. A job makes one when its route is taken; or bring one in.
                    </p>
                {:else if shown.length === 0}<p class="p-3 text-quiet">No bag fits “{find}”.</p>
                {:else}
                    <table class="w-full text-sm [&_td]:px-2 [&_th]:px-2">
                        <thead class="text-left text-quiet"
                            ><tr
                                >{#each columns as c (c.name)}<th
                                        class="font-normal {c.name === 'Size' ? 'text-right' : ''}"
                                        aria-sort={sort.name === c.name
                                            ? sort.down
                                                ? 'descending'
                                                : 'ascending'
                                            : 'none'}
                                        ><button
                                            class="min-h-11 min-w-11 [text-align:inherit]"
                                            onclick={() =>
                                                (sort = {
                                                    name: c.name,
                                                    down: sort.name === c.name ? !sort.down : false,
                                                })}
                                            >{c.name}{sort.name === c.name ? (sort.down ? ' ↓' : ' ↑') : ''}</button
                                        ></th
                                    >{/each}<th class="text-right font-normal">Compare</th></tr
                            ></thead
                        >
                        <tbody
                            >{#each shown as bag (bag.id)}<BagRow
                                    {bag}
                                    marked={marked.includes(bag.id)}
                                    onmark={() => mark(bag.id)}
                                />{/each}</tbody
                        >
                    </table>
                {/if}
            </section>
            <div class="flex flex-col gap-4">
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
                {#if session.mayAct}<ImportStrip held={held.data} bind:dropped={brought} />{/if}
            </div>
        </div></DropPlace
    >
{/if}
