<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Tabs } from 'bits-ui';
    import { batches } from '../../api/batches';
    import Ask from '../../parts/Ask.svelte';
    import { keepInAddress, queryOf } from '../../parts/query';
    import Notice from '../../parts/Notice.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { session } from '../../shell/session.svelte';
    import BatchDevices from './BatchDevices.svelte';
    import BatchSettingsPanel from './BatchSettingsPanel.svelte';
    import Board from './Board.svelte';
    import ChangesList from './ChangesList.svelte';
    import HelpList from './HelpList.svelte';
    import OrderOfTheDay from './OrderOfTheDay.svelte';
    import WhatIfBatch from './WhatIfBatch.svelte';
    import { answer, lateWords, moment } from './words';

    let { params }: { params: { id: string } } = $props();
    const id = $derived(Number(params.id));
    const TAB = 'min-h-9 rounded px-3 data-[state=active]:bg-panel data-[state=active]:font-semibold';
    const queries = useQueryClient();
    const held = createQuery(() => ({
        queryKey: ['batch', id],
        queryFn: () => batches.show(id),
        refetchInterval: 3_000,
    }));
    const batch = $derived(held.data);
    const shown = $derived(queryOf('as') || 'board');
    const end = createMutation(() => ({
        mutationFn: () => batches.end(id),
        onSuccess: () => {
            notices.success('The batch has ended. Its jobs go on.');
            void queries.invalidateQueries({ queryKey: ['batch', id] });
        },
        onError: (e: Error) => notices.refused(e),
    }));
    let ending = $state(false);
    const open = $derived(batch !== undefined && batch.endedAt === null);
</script>

<svelte:head><title>{batch?.name ?? 'Batch'} · Jade Step</title></svelte:head>
{#if held.isPending}<p class="text-quiet" role="status">Reading the batch…</p>
{:else if batch === undefined}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    <div class="mb-2 flex flex-wrap items-baseline gap-x-4">
        <h1>{batch.name}</h1>
        <p class="text-lg" aria-live="polite" data-answer><strong>{answer(batch)}</strong></p>
        {#if lateWords(batch) !== ''}<span class="text-amber">{lateWords(batch)}</span>{/if}
        {#if batch.schedule !== null && batch.open > 0}<p class="w-full text-sm text-quiet">
                In 90 of 100 cases the last is done between {moment(batch.schedule.finish.from)} and {moment(
                    batch.schedule.finish.until,
                )}. {batch.schedule.draws} ways that it may go were played through.
            </p>{/if}
    </div>
    {#if open && batch.open > 0 && (batch.schedule?.disk?.words ?? '') !== ''}
        <div class="mb-2" data-disk><Notice tone="amber">{batch.schedule?.disk?.words}</Notice></div>
    {/if}
    {#if held.isError}<div class="mb-2"><Notice tone="amber">{held.error.message}</Notice></div>{/if}
    {#if !open}<div class="mb-2"><Notice>This batch has ended. What it said last is kept.</Notice></div>{/if}
    <Tabs.Root value={shown} onValueChange={(v) => keepInAddress({ as: v === 'board' ? '' : v })}>
        <div class="mb-2 flex flex-wrap items-center gap-3 print:hidden">
            <Tabs.List class="flex gap-1 rounded-md bg-sunken p-1" aria-label="What to look at">
                <Tabs.Trigger value="board" class={TAB}>Board</Tabs.Trigger>
                <Tabs.Trigger value="order" class={TAB}>Order of the day</Tabs.Trigger>
                <Tabs.Trigger value="devices" class={TAB}>Devices</Tabs.Trigger>
                {#if session.mayAct && open}<Tabs.Trigger value="settings" class={TAB}>Settings</Tabs.Trigger>{/if}
            </Tabs.List>
            {#if session.mayAct && open}<button class="act-quiet ml-auto" onclick={() => (ending = true)}
                    >End this batch</button
                >{/if}
        </div>
        <Tabs.Content value="board">
            {#if batch.schedule === null}<p class="panel text-quiet" role="status">
                    The schedule is being made. It shows here by itself.
                </p>
            {:else}
                <div class="grid items-start gap-3 @5xl:grid-cols-[1fr_20rem]">
                    <Board {batch} schedule={batch.schedule} />
                    <div class="flex flex-col gap-3">
                        {#if open}<HelpList helps={batch.schedule.helps} deadline={batch.deadline !== null} />
                            <WhatIfBatch {batch} />{/if}
                        <ChangesList {batch} />
                    </div>
                </div>
            {/if}
        </Tabs.Content>
        <Tabs.Content value="order">
            {#if batch.schedule === null}<p class="panel text-quiet" role="status">The schedule is being made.</p>
            {:else}<OrderOfTheDay {batch} schedule={batch.schedule} />{/if}
        </Tabs.Content>
        <Tabs.Content value="devices"><BatchDevices {batch} mayAct={session.mayAct && open} /></Tabs.Content>
        {#if session.mayAct && open}<Tabs.Content value="settings">
                {#key batch.id}<BatchSettingsPanel {batch} />{/key}
            </Tabs.Content>{/if}
    </Tabs.Root>
    <Ask
        open={ending}
        title="End this batch?"
        yes="End it"
        no="Keep it open"
        onyes={() => {
            ending = false;
            end.mutate();
        }}
        onno={() => (ending = false)}
        >Its schedule is not made again. {batch.open === 0
            ? 'All of its jobs are done.'
            : 'Jobs that are open stay open, and go on by themselves.'}</Ask
    >
{/if}
