<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { router } from 'svelte-spa-router';
    import { shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { bytes, version } from '../../parts/format';
    import { scannable } from '../../parts/scan';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import BagActs from './BagActs.svelte';
    import BagInside from './BagInside.svelte';
    import BagRow from './BagRow.svelte';
    import CompareBags from './CompareBags.svelte';
    import ImportStrip from './ImportStrip.svelte';

    const held = createQuery(() => ({ queryKey: ['shelf'], queryFn: shelf.show, refetchInterval: 3000 }));
    const columns: { name: string; by: (b: Bag) => string | number }[] = [
        { name: 'Bag', by: (b) => b.label },
        { name: 'Device', by: (b) => b.serial },
        { name: 'Taken', by: (b) => b.takenAt },
        { name: 'Made on', by: (b) => b.madeOn },
        { name: 'State', by: (b) => b.state },
        { name: 'Encrypted', by: (b) => b.encryption },
        { name: 'Size', by: (b) => b.bytes ?? 0 },
        { name: 'From', by: (b) => b.source },
    ];
    let find = $state('');
    let sort = $state({ name: 'Taken', down: true });
    let chosenId = $state<string | null>(null);
    $effect(() => {
        const named = new URLSearchParams(router.querystring ?? '').get('bag');
        if (named !== null) chosenId = named;
    });
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
    const chosen = $derived(held.data?.bags.find((b) => b.id === chosenId) ?? null);
    const pair = $derived(
        marked.map((id) => held.data?.bags.find((b) => b.id === id)).filter((b): b is Bag => b !== undefined),
    );
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
    <div class="grid items-start gap-4 xl:grid-cols-[1fr_24rem]">
        <section class="panel overflow-x-auto p-2" aria-label="Bags">
            {#if held.data.bags.length === 0}<p class="p-3 text-quiet">
                    No bag is on the shelf. A job makes one when its route is taken; or bring one in.
                </p>
            {:else if shown.length === 0}<p class="p-3 text-quiet">No bag fits “{find}”.</p>
            {:else}
                <table class="w-full text-sm [&_td]:px-2 [&_th]:px-2">
                    <thead class="text-left text-quiet"
                        ><tr
                            ><th class="w-8"><span class="sr-only">Compare</span></th>{#each columns as c (c.name)}<th
                                    class="font-normal {c.name === 'Size' ? 'text-right' : ''}"
                                    aria-sort={sort.name === c.name ? (sort.down ? 'descending' : 'ascending') : 'none'}
                                    ><button
                                        class="[text-align:inherit]"
                                        onclick={() =>
                                            (sort = { name: c.name, down: sort.name === c.name ? !sort.down : false })}
                                        >{c.name}{sort.name === c.name ? (sort.down ? ' ↓' : ' ↑') : ''}</button
                                    ></th
                                >{/each}</tr
                        ></thead
                    >
                    <tbody
                        >{#each shown as bag (bag.id)}<BagRow
                                {bag}
                                chosen={bag.id === chosenId}
                                marked={marked.includes(bag.id)}
                                onchoose={() => (chosenId = bag.id)}
                                onmark={() => mark(bag.id)}
                            />{/each}</tbody
                    >
                </table>
            {/if}
            {#if pair.length === 2 && pair[0] && pair[1]}<div class="border-t border-edge p-2 pt-4">
                    {#key `${pair[0].id} ${pair[1].id}`}<CompareBags one={pair[0]} other={pair[1]} />{/key}
                </div>{:else if pair.length === 1}<p class="p-2 text-sm text-quiet">
                    Mark one more bag to compare the two.
                </p>{/if}
        </section>
        <div class="flex flex-col gap-4">
            {#if chosen}
                <section class="panel py-3 {chosen.state === 'damaged' ? 'border-loss' : ''}" aria-labelledby="chosen">
                    <h2 id="chosen" class="mb-2">{chosen.label}</h2>
                    {#if chosen.faults.length > 0}<ul class="mb-2 max-h-40 overflow-auto text-sm text-loss">
                            {#each chosen.faults as f, i (i)}<li>
                                    <span class="font-mono break-all">{f.path}</span>: {f.code}
                                </li>{/each}
                        </ul>{/if}
                    {#key chosen.id}<BagInside bag={chosen} />{/key}
                    {#if session.mayAct}<div class="mt-3">
                            <BagActs
                                bag={chosen}
                                restedOn={held.data?.restedOn[chosen.id] ?? null}
                                leads={session.leads}
                                ondone={() => (chosenId = null)}
                            />
                        </div>{/if}
                </section>
            {/if}
            {#if session.mayAct}<ImportStrip held={held.data} />{/if}
        </div>
    </div>
{/if}
