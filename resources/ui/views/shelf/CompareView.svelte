<script lang="ts">
    import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { dayAndClock } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { scannable } from '../../parts/scan';
    import CompareBags from './CompareBags.svelte';

    /** Two bags side by side. `-` stands for one that is still to be chosen. */
    let { params }: { params?: { one?: string; other?: string } | null } = $props();
    let find = $state('');
    const idOf = (id: string | undefined) => decodeURIComponent(id ?? '-');
    const chosen = (id: () => string) =>
        createQuery(() => ({
            queryKey: ['shelf', id()],
            queryFn: () => shelf.bag(id()),
            enabled: id() !== '-',
        }));
    const chosenOne = chosen(() => idOf(params?.one));
    const chosenOther = chosen(() => idOf(params?.other));
    const one = $derived(idOf(params?.one) === '-' ? undefined : chosenOne.data?.bag);
    const other = $derived(idOf(params?.other) === '-' ? undefined : chosenOther.data?.bag);
    const found = (words: () => string) =>
        createQuery(() => ({
            queryKey: ['shelf', 'found', words()],
            queryFn: () => shelf.page({ find: words() }),
            placeholderData: keepPreviousData,
        }));
    const held = found(() => find.trim());
    const ofDevice = found(() => one?.serial ?? '');
    const listed = (first: (Bag | undefined)[], then: Bag[]) => [
        ...new Map(
            [...first, ...then]
                .filter((b): b is Bag => b !== undefined && b.state !== 'writing')
                .map((b) => [b.id, b] as const),
        ).values(),
    ];
    const bags = $derived(listed([one], held.data?.bags ?? []));
    // of one device first: those are compared
    const beside = $derived(
        listed([other], [...(one === undefined ? [] : (ofDevice.data?.bags ?? [])), ...(held.data?.bags ?? [])]).filter(
            (b) => b.id !== one?.id,
        ),
    );
    const go = (a: string, b: string) =>
        void push(`/shelf/compare/${encodeURIComponent(a || '-')}/${encodeURIComponent(b || '-')}`);
</script>

<svelte:head><title>Compare · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-4">
    <a class="act-quiet" href="#/shelf">Shelf</a>
    <h1>Compare two bags</h1>
</div>
{#if held.isPending}<p class="text-quiet" role="status">Looking at the shelf…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else if find === '' && bags.length < 2}<Notice
        >There are not two bags on the Shelf yet. Each job takes one, and so do the nights.</Notice
    >
{:else}
    <section class="panel mb-4 grid gap-4 @3xl:grid-cols-[14rem_1fr_1fr]" aria-label="Which two">
        <label class="flex flex-col gap-1"
            >Find bags to choose from<input
                class="field"
                type="search"
                name="find"
                placeholder="Name, device, version"
                {@attach scannable()}
                bind:value={find}
            /></label
        >
        <label class="flex flex-col gap-1"
            >What does this one have…<select
                class="field"
                name="one"
                value={one?.id ?? ''}
                onchange={(e) => go(e.currentTarget.value, other?.id ?? '')}
                ><option value="" disabled>choose a bag</option>{#each bags as b (b.id)}<option value={b.id}
                        >{b.label}, {dayAndClock(b.takenAt)}</option
                    >{/each}</select
            ></label
        >
        <label class="flex flex-col gap-1"
            >…that this one lacks, and the other way round?<select
                class="field"
                name="other"
                value={other?.id ?? ''}
                onchange={(e) => go(one?.id ?? '', e.currentTarget.value)}
                ><option value="" disabled>choose another</option>{#each beside as b (b.id)}<option value={b.id}
                        >{b.label}, {dayAndClock(b.takenAt)}</option
                    >{/each}</select
            ></label
        >
    </section>
    {#if one && other}<section class="panel" aria-label="Comparison">
            {#key `${one.id} ${other.id}`}<CompareBags {one} {other} />{/key}
        </section>{:else}<p class="text-quiet">
            Choose two, for instance of one device before and after: kind by kind it is shown what only one of them has.
        </p>{/if}
{/if}
