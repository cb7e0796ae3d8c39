<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { shelf } from '../../api/shelf';
    import { dayAndClock } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import CompareBags from './CompareBags.svelte';

    /** Two bags side by side. `-` stands for one that is still to be chosen. */
    let { params }: { params?: { one?: string; other?: string } | null } = $props();
    const held = createQuery(() => ({ queryKey: ['shelf'], queryFn: shelf.show }));
    const bags = $derived(
        [...(held.data?.bags ?? [])]
            .filter((b) => b.state !== 'writing')
            .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1)),
    );
    const named = (id: string | undefined) => bags.find((b) => b.id === decodeURIComponent(id ?? '-'));
    const one = $derived(named(params?.one));
    const other = $derived(named(params?.other));
    const go = (a: string, b: string) =>
        void push(`/shelf/compare/${encodeURIComponent(a || '-')}/${encodeURIComponent(b || '-')}`);
    // of one device first: those are compared
    const beside = $derived(
        one === undefined
            ? bags
            : [...bags.filter((b) => b.serial === one.serial), ...bags.filter((b) => b.serial !== one.serial)],
    );
</script>

<svelte:head><title>Compare · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-4">
    <a class="act-quiet" href="#/shelf">Shelf</a>
    <h1>Compare two bags</h1>
</div>
{#if held.isPending}<p class="text-quiet" role="status">Looking at the shelf…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else if bags.length < 2}<Notice
        >There are not two bags on the Shelf yet. Each job takes one, and so do the nights.</Notice
    >
{:else}
    <section class="panel mb-4 grid gap-4 @3xl:grid-cols-2" aria-label="Which two">
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
                ><option value="" disabled>choose another</option
                >{#each beside.filter((b) => b.id !== one?.id) as b (b.id)}<option value={b.id}
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
