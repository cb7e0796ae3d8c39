<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { shelf } from '../../api/shelf';
    import { BAG_STATE } from '../../api/words';
    import Copied from '../../parts/Copied.svelte';
    import { bytes, counted, dayAndClock, version } from '../../parts/format';
    import HeldOfDevice from '../../parts/HeldOfDevice.svelte';
    import Notice from '../../parts/Notice.svelte';
    import Term from '../../parts/Term.svelte';
    import { session } from '../../shell/session.svelte';
    import SecondCopyLine from './SecondCopyLine.svelte';
    import type { BagTold } from '../../api/types';
    import BagActs from './BagActs.svelte';
    import BagInside from './BagInside.svelte';

    let { params }: { params: { bag: string } } = $props();
    const id = $derived(decodeURIComponent(params.bag));
    const held = createQuery(() => ({
        queryKey: ['shelf', id],
        queryFn: () => shelf.bag(id),
        refetchInterval: (q) => (q.state.data && isBusy(q.state.data) ? 1500 : 15_000),
    }));
    const bag = $derived(held.data?.bag);
    const copy = $derived(held.data?.secondCopies[id] ?? null);
    const isBusy = (told: BagTold) =>
        told.bag.checkState !== null || ['carrying', 'returning'].includes(told.secondCopies[told.bag.id]?.state ?? '');
    const sources = { job: 'by a job', schedule: 'at night', import: 'brought in' };
    const reading = $derived(
        bag?.checkState == null
            ? ''
            : `, being read${bag.checkProgress === null ? '' : ` ${Math.round(bag.checkProgress * 100)} %`}`,
    );
    const from = $derived(
        bag === undefined ? '' : bag.loweredFrom === null ? sources[bag.source] : 'as a lowered copy',
    );
</script>

<svelte:head><title>{bag?.label ?? 'Bag'} · Jade Step</title></svelte:head>
{#if bag === undefined}
    {#if held.isError}<Notice tone="amber">{held.error.message}</Notice>
        <p class="mt-3"><a class="act-quiet" href="#/shelf">To the Shelf</a></p>
    {:else}<p class="text-quiet" role="status">Taking the bag from the shelf…</p>{/if}
{:else}
    <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <a class="act-quiet" href="#/shelf">Shelf</a>
        <h1 class="min-w-0 flex-1 break-words">{bag.label}</h1>
        <a class="act-quiet" href="#/shelf/compare/{encodeURIComponent(bag.id)}/-">Compare with another</a>
    </div>
    {#if held.isError}<div class="mb-3"><Notice tone="amber">{held.error.message}</Notice></div>{/if}
    {#if bag.faults.length > 0}<div class="mb-3">
            <Notice tone="loss"
                ><strong>This bag is damaged.</strong> Nothing is put back from it.
                <ul class="mt-1 max-h-40 overflow-auto text-sm">
                    {#each bag.faults as f, i (i)}<li>
                            <span class="font-mono break-all">{f.path}</span>: {f.code}{f.detail === ''
                                ? ''
                                : `, ${f.detail}`}
                        </li>{/each}
                </ul></Notice
            >
        </div>{/if}
    <div class="grid items-start gap-4 @4xl:grid-cols-[1.6fr_1fr]">
        <section class="panel min-w-0" aria-label="What it holds">
            {#key bag.id}<BagInside {bag} />{/key}
        </section>
        <div class="flex min-w-0 flex-col gap-4">
            <section class="panel" aria-labelledby="about-bag" data-bag={bag.id} data-state={bag.state}>
                <h2 id="about-bag" class="mb-1">
                    {#if bag.state === 'sealed'}<Term of="sealed" />{:else}<span class="first-letter:uppercase"
                            >{BAG_STATE[bag.state]}</span
                        >{/if}{reading}
                </h2>
                <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
                    <dt class="text-quiet">Device</dt>
                    <dd><Copied text={bag.serial} what="Serial" /></dd>
                    <dt class="text-quiet">Taken</dt>
                    <dd>{dayAndClock(bag.takenAt)}, {from}</dd>
                    <dt class="text-quiet">Made on</dt>
                    <dd>
                        {version(bag.madeOn)}{#if bag.declaredVersion !== bag.madeOn}, <Term of="declared-version"
                                >declares {version(bag.declaredVersion)}</Term
                            >{/if}
                    </dd>
                    <dt class="text-quiet">Holds</dt>
                    <dd>{bag.items === null ? 'not known yet' : counted(bag.items, 'item')}, {bytes(bag.bytes)}</dd>
                    <dt class="text-quiet">Closed</dt>
                    <dd>
                        {bag.encryption !== 'openpgp'
                            ? 'no, it is plain'
                            : bag.closedFor !== null
                              ? 'for a key'
                              : bag.passphraseProvenAt === null
                                ? 'encrypted, its passphrase not proven'
                                : `encrypted, its passphrase proven ${dayAndClock(bag.passphraseProvenAt)}`}
                    </dd>
                    {#if bag.verifiedAt !== null}<dt class="text-quiet">Read back</dt>
                        <dd>every byte, {dayAndClock(bag.verifiedAt)}</dd>{/if}
                    {#if bag.keepUntil !== null}<dt class="text-quiet">Kept until</dt>
                        <dd>{dayAndClock(bag.keepUntil)}</dd>{/if}
                    {#if copy !== null}<dt class="text-quiet"><Term of="second-place">Second place</Term></dt>
                        <dd><SecondCopyLine {bag} {copy} mayAct={session.mayAct} /></dd>{/if}
                    <dt class="text-quiet">Folder</dt>
                    <dd class="text-xs"><Copied text={bag.id} what="Name of the folder" /></dd>
                </dl>
            </section>
            {#if session.mayAct}<section class="panel" aria-label="What can be done with it">
                    <BagActs
                        {bag}
                        restedOn={held.data?.restedOn ?? null}
                        leads={session.leads}
                        ondone={() => void push('/shelf')}
                    />
                </section>{/if}
            <HeldOfDevice serial={bag.serial} />
        </div>
    </div>
{/if}
