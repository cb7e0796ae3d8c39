<script lang="ts">
    import { CalendarDays, FileUp, RefreshCw } from '@lucide/svelte';
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Tabs, ToggleGroup } from 'bits-ui';
    import { push } from 'svelte-spa-router';
    import { notices } from '../../shell/notices.svelte';
    import { almanac, calendarAddress } from '../../api/almanac';
    import Ask from '../../parts/Ask.svelte';
    import DropPlace from '../../parts/DropPlace.svelte';
    import Term from '../../parts/Term.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { keepInAddress, queryOf } from '../../parts/query';
    import WindowChart from '../../parts/WindowChart.svelte';
    import { session } from '../../shell/session.svelte';
    import ChangeList from './ChangeList.svelte';
    import EstimatesPanel from './EstimatesPanel.svelte';
    import ImportPanel from './ImportPanel.svelte';
    import LaneDetail from './LaneDetail.svelte';
    import VendorStrip from './VendorStrip.svelte';
    import WindowTable from './WindowTable.svelte';

    let { params }: { params?: { model?: string } | null } = $props();

    const TAB = 'min-h-9 rounded px-3 data-[state=active]:bg-panel data-[state=active]:font-semibold';
    const CHANNELS = ['release', 'candidate', 'beta'];
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['almanac'], queryFn: almanac.show, refetchInterval: 30_000 }));
    const models = $derived(held.data?.models ?? []);
    const model = $derived(models.find((m) => m.hardwareId === params?.model) ?? models[0] ?? null);
    const windows = createQuery(() => ({
        queryKey: ['almanac', 'windows', model?.hardwareId],
        queryFn: () => almanac.windows(model?.hardwareId ?? ''),
        enabled: model !== null,
        refetchInterval: 60_000,
    }));
    const again = () => queries.invalidateQueries({ queryKey: ['almanac'] });
    const refresh = createMutation(() => ({
        mutationFn: almanac.refresh,
        onSuccess: ({ results }) => {
            const failed = results.filter((r) => r.problem !== null);
            const changes = results.reduce((n, r) => n + r.changes, 0);
            if (failed.length > 0)
                notices.error(`${failed.map((r) => r.vendor).join(', ')}: ${failed[0]?.problem?.detail}`);
            else
                notices.success(
                    changes === 0
                        ? 'Every vendor has answered; nothing has changed.'
                        : changes === 1
                          ? 'One thing has changed.'
                          : `${changes} things have changed.`,
                );
            void again();
        },
        onError: (e: Error) => notices.refused(e),
    }));
    let leaving = $state<number | null>(null);
    const withdraw = createMutation(() => ({
        mutationFn: almanac.withdraw,
        onSuccess: again,
        onError: (e: Error) => notices.refused(e),
    }));
    let shownChannels = $state([...CHANNELS]);
    const build = $derived(queryOf('build') || null);
    const choose = (b: string) => keepInAddress({ build: b });
    const shownAs = $derived(queryOf('as') || 'chart');
    let droppedFile = $state<File | null>(null);
    let importing = $state(false);
    const lanes = $derived((windows.data?.lanes ?? []).filter((l) => shownChannels.includes(l.channel)));
    const chosen = $derived(
        lanes.find((l) => l.build === build) ??
            lanes.find((l) => l.channel === 'release' && l.state !== 'closed') ??
            lanes[0] ??
            null,
    );
    const names = $derived([...new Set(models.map((m) => m.name))]);
</script>

<svelte:head><title>Almanac · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-3">
    <h1><Term of="almanac">Almanac</Term></h1>
    <label class="flex items-center gap-2"
        ><span class="sr-only">Model</span>
        <select
            class="field"
            value={model?.hardwareId}
            onchange={(e) => {
                void push(`/almanac/${e.currentTarget.value}`);
            }}
        >
            {#each names as name (name)}<optgroup label={name}
                    >{#each models.filter((m) => m.name === name) as m (m.hardwareId)}<option value={m.hardwareId}
                            >{m.name} {m.variant} ({m.hardwareId})</option
                        >{/each}</optgroup
                >{/each}
        </select>
    </label>
    <div class="ml-auto flex gap-2">
        <a class="act-quiet" href={calendarAddress} download
            ><CalendarDays size="1.15em" aria-hidden="true" />Calendar file</a
        >
        {#if session.mayAct}
            <button class="act-quiet" onclick={() => (importing = true)}
                ><FileUp size="1.15em" aria-hidden="true" />Take in from a file</button
            >
            <button class="act" disabled={refresh.isPending} onclick={() => refresh.mutate()}
                ><RefreshCw
                    size="1.15em"
                    class={refresh.isPending ? 'animate-spin' : ''}
                    aria-hidden="true"
                />{refresh.isPending ? 'Asking…' : 'Ask the vendors now'}</button
            >
        {/if}
    </div>
</div>

{#if held.isPending}<p class="text-quiet" role="status">Reading the almanac…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    {#if held.isError}<div class="mb-3"><Notice tone="amber">{held.error.message}</Notice></div>{/if}
    <DropPlace
        says={session.mayAct
            ? 'Let go: it is read, and shown with what it would change before anything is kept.'
            : 'Your role looks on: a technician takes files in.'}
        ontake={(f) => {
            if (!session.mayAct) return;
            droppedFile = f;
            importing = true;
        }}
        ><div class="grid items-start gap-4 @6xl:grid-cols-[1fr_22rem]">
            <section class="panel" aria-label="Signing windows">
                {#if model === null}<p>
                        No catalogue is held, so no model is known. {session.mayAct
                            ? 'Ask the vendors, take a file in, or set a vendor up in Settings.'
                            : 'A technician can refresh it.'}
                    </p>
                {:else if windows.isError && !windows.data}<Notice tone="amber">{windows.error.message}</Notice>
                {:else if windows.data}
                    <Tabs.Root value={shownAs} onValueChange={(v) => keepInAddress({ as: v === 'chart' ? '' : v })}>
                        <div class="mb-2 flex flex-wrap items-center gap-3">
                            <Tabs.List class="flex gap-1 rounded-md bg-sunken p-1" aria-label="How to show the windows">
                                <Tabs.Trigger value="chart" class={TAB}>Chart</Tabs.Trigger>
                                <Tabs.Trigger value="table" class={TAB}>Table</Tabs.Trigger>
                                <Tabs.Trigger value="estimates" class={TAB}>Estimates</Tabs.Trigger>
                            </Tabs.List>
                            {#if shownAs !== 'estimates'}<ToggleGroup.Root
                                    type="multiple"
                                    bind:value={shownChannels}
                                    class="flex gap-1"
                                    aria-label="Channels to show"
                                >
                                    {#each CHANNELS as c (c)}<ToggleGroup.Item value={c} class="chip"
                                            >{shownChannels.includes(c) ? '✓ ' : ''}{c}</ToggleGroup.Item
                                        >{/each}
                                </ToggleGroup.Root>{/if}
                        </div>
                        <Tabs.Content value="estimates"><EstimatesPanel /></Tabs.Content>
                        {#if shownAs !== 'estimates'}
                            {#if lanes.length === 0}<p class="py-6 text-quiet">
                                    {windows.data.lanes.length === 0
                                        ? 'No build in the almanac has a package for this model.'
                                        : 'No build of these channels. Switch one on.'}
                                </p>
                            {:else}
                                <Tabs.Content value="chart"
                                    ><WindowChart
                                        windows={{ ...windows.data, lanes }}
                                        chosen={chosen?.build ?? null}
                                        onchoose={choose}
                                    /></Tabs.Content
                                >
                                <Tabs.Content value="table"
                                    ><WindowTable
                                        {lanes}
                                        chosen={chosen?.build ?? null}
                                        onchoose={choose}
                                    /></Tabs.Content
                                >
                                {#if chosen}<div class="mt-4"><LaneDetail lane={chosen} /></div>{/if}
                            {/if}
                        {/if}
                    </Tabs.Root>
                {:else}<p class="text-quiet" role="status">Reading the windows…</p>{/if}
            </section>
            <div class="flex flex-col gap-3">
                {#each held.data.vendors as vendor (vendor.id)}<VendorStrip
                        {vendor}
                        mayAct={session.mayAct}
                        onwithdraw={(id) => (leaving = id)}
                    />{/each}
                {#if held.data.vendors.length === 0}<Notice>No vendor is set up. A lead adds one in Settings.</Notice
                    >{/if}
                <section class="panel py-3"><ChangeList hardwareId={model?.hardwareId ?? null} /></section>
            </div>
        </div></DropPlace
    >
    <Ask
        open={leaving !== null}
        title="Take this catalogue back?"
        yes="Take it back"
        no="Keep it"
        onyes={() => leaving !== null && withdraw.mutate(leaving)}
        onno={() => (leaving = null)}
        >What it says does not count any more; the one before it does, and open jobs are planned anew.</Ask
    >
    <ImportPanel bind:open={importing} vendors={held.data.vendors} bind:dropped={droppedFile} />
{/if}
