<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { returns } from '../../api/returns';
    import type { Job, MissingItem } from '../../api/types';
    import { bytes, kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { jobAct } from './job.svelte';
    import { nextAct } from './nextact.svelte';

    let { job, mayAct }: { job: Job; mayAct: boolean } = $props();
    const ready = $derived(job.may['put-items-back'].allowed);
    // each comparison anew, however soon it follows the last
    const proven = $derived(job.steps.find((s) => s.code === 'prove')?.attempt);
    const missing = createQuery(() => ({
        queryKey: ['missing', job.id, proven],
        queryFn: () => returns.missing(job.id),
        refetchInterval: ready ? false : 1500,
    }));
    const put = jobAct(
        (items: { kind: MissingItem['kind']; path: string; bag: string }[]) => returns.putBack(job.id, items),
        () => void missing.refetch(),
    );
    const SHOWN = 8;
    const items = $derived(missing.data?.items ?? []);
    const unexpected = $derived(new Set<string>(job.verdict.unnamedKinds));
    // what was not named before comes first
    const all = $derived(job.proof?.missing ?? 0);
    const sorted = $derived(
        [...items].sort(
            (a, b) =>
                Number(unexpected.has(b.kind)) - Number(unexpected.has(a.kind)) ||
                Number(b.oneByOne) - Number(a.oneByOne),
        ),
    );
    const here = $derived(job.steps.some((s) => s.code === 'bring-in'));
    const can = $derived(here && ready ? items.filter((i) => i.oneByOne && i.bags.some((b) => b.told)) : []);
    let from = $state<Record<string, string>>({});
    const key = (i: MissingItem) => `${i.kind}/${i.path}`;
    const asked = (i: MissingItem) => ({
        kind: i.kind,
        path: i.path,
        bag:
            from[key(i)] ??
            i.bags.find((b) => b.id !== i.import?.bag || i.import.state !== 'refused')?.id ??
            i.bags[0]?.id ??
            '',
    });
    $effect(() =>
        nextAct.offer(
            'put-items-back',
            mayAct && can.length > 0
                ? {
                      label: can.length === 1 ? 'Put it back' : `Put back all ${can.length} that a bag has`,
                      run: () => put.mutate(can.map(asked)),
                      disabled: put.isPending,
                  }
                : null,
        ),
    );
    const own = $derived(job.bags.filter((b) => b.loweredFrom === null).at(-1)?.id);
    const shelf = createQuery(() => ({
        queryKey: ['return', job.id, false],
        queryFn: () => returns.show(job.id, false),
    }));
    const perhaps = (b: MissingItem['bags'][number]) => (b.told ? '' : ' (encrypted, may have it)');
    const label = (bag: string) =>
        bag === own ? 'this job’s backup' : (shelf.data?.choices.find((c) => c.backup === bag)?.label ?? bag);
</script>

<section class="panel {unexpected.size > 0 ? 'border-loss' : ''}" aria-labelledby="missing">
    <div class="mb-1 flex items-baseline gap-4">
        <h2 id="missing">
            {job.proof?.missing === 1 ? 'One item is missing' : `${job.proof?.missing} items are missing`}
        </h2>
        {#if !ready && job.state === 'open'}<span class="ml-auto text-sm text-quiet" role="status"
                >Being put back, then compared again…</span
            >
        {:else if mayAct && can.length > 1}<button
                class="act-quiet ml-auto"
                disabled={put.isPending}
                onclick={() => put.mutate(can.map(asked))}>Put back all {can.length} that a bag has</button
            >{/if}
    </div>
    {#if missing.isError}<Notice tone="amber">{missing.error.message}</Notice>
    {:else if missing.isPending}<p class="text-sm text-quiet" role="status">Looking in the bags…</p>
    {:else}
        <ul class="text-sm">
            {#each sorted.slice(0, SHOWN) as i (key(i))}
                <li class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-edge py-1" data-missing={key(i)}>
                    <span class="min-w-0 flex-1"
                        ><span class={unexpected.has(i.kind) ? 'font-semibold text-loss' : ''}>{kindName(i.kind)}</span>
                        <span class="font-mono break-all">{i.path}</span>
                        <span class="text-quiet">{bytes(i.bytes)}{unexpected.has(i.kind) ? '' : ', named before'}</span>
                        {#if i.import?.state === 'refused'}<span class="block text-amber">{i.import.detail}</span
                            >{/if}</span
                    >
                    {#if i.bags.length === 0}<span class="text-quiet">no bag on the Shelf shows it</span>
                    {:else if !i.oneByOne}<span class="text-quiet">comes back with a whole backup only</span>
                    {:else if !here}<span class="text-quiet">in {label(i.bags[0]?.id ?? '')}</span>
                    {:else if mayAct && ready}
                        {#if i.bags.length > 1}<label class="text-quiet"
                                >from <select
                                    class="field !min-h-9 max-w-56"
                                    value={asked(i).bag}
                                    onchange={(e) => (from[key(i)] = e.currentTarget.value)}
                                    >{#each i.bags as b (b.id)}<option value={b.id}>{label(b.id)}{perhaps(b)}</option
                                        >{/each}</select
                                ></label
                            >{:else}<span class="text-quiet">from {label(i.bags[0]?.id ?? '')}</span>{/if}
                        <button
                            class="act-quiet !min-h-9"
                            disabled={put.isPending}
                            onclick={() => put.mutate([asked(i)])}>Put it back</button
                        >
                    {/if}
                </li>
            {/each}
        </ul>
        {#if all > SHOWN}<p class="text-sm text-quiet">
                and {all - SHOWN} more.{#if all > sorted.length}
                    Not all of them are listed; the others follow when these are back.{/if}
            </p>{/if}
    {/if}
</section>
