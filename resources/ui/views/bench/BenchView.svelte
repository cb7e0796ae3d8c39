<script lang="ts">
    import { Bell, BellOff } from '@lucide/svelte';
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { link, push } from 'svelte-spa-router';
    import { notices } from '../../shell/notices.svelte';
    import { api } from '../../api/jobs';
    import Notice from '../../parts/Notice.svelte';
    import { calls } from '../../shell/calls.svelte';
    import { session } from '../../shell/session.svelte';
    import { keepInAddress, queryOf } from '../../parts/query';
    import BackUpDialog from './BackUpDialog.svelte';
    import { Board } from './board.svelte';
    import BoardBar from './BoardBar.svelte';
    import EndedJobs from './EndedJobs.svelte';
    import JobRow from './JobRow.svelte';
    import PortCard from './PortCard.svelte';
    import TogetherDialog from './TogetherDialog.svelte';

    const queries = useQueryClient();
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench, refetchInterval: 2000 }));
    const open = createMutation(() => ({
        mutationFn: ({ serial, returns }: { serial: string; returns: boolean }) =>
            returns ? api.returnOnly(serial) : api.open(serial),
        onSuccess: (job) => {
            queries.setQueryData(['job', job.id], job);
            void push(`/jobs/${job.id}`);
        },
        onError: (e: Error) => notices.refused(e),
    }));
    const jobs = $derived(bench.data?.open ?? []);
    const benches = $derived(bench.data?.benches ?? []);
    let backUp = $state<string[] | null>(null);
    const board = new Board();
    const rows = $derived(board.rows(jobs));
    let together = $state('');
    $effect(() => {
        const asked = queryOf('together');
        if (asked === '') return;
        keepInAddress({ together: '' });
        if (asked === 'back-up') backUp = free.map((p) => p.serial ?? '');
        else together = asked;
    });
    const free = $derived(
        benches.flatMap((b) =>
            b.ports.filter((p) => p.serial !== null && p.jobId === null && p.mode === 'normal' && !p.byAir),
        ),
    );
</script>

<svelte:head><title>Bench · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
    <h1>Bench</h1>
    <p class="text-quiet">
        {#if bench.data}{#if bench.data.hands > 0}<span class="font-semibold text-amber"
                    >{bench.data.hands === 1 ? 'One job needs' : `${bench.data.hands} jobs need`} a hand now</span
                >{:else if jobs.length > 0}Nothing needs a hand now{:else}No job is in progress{/if}{/if}
    </p>
    <button class="act-quiet ml-auto" aria-pressed={calls.on} onclick={() => void calls.toggle()}
        >{#if calls.on}<Bell size="1.15em" aria-hidden="true" />Calls when a hand is needed{:else}<BellOff
                size="1.15em"
                aria-hidden="true"
            />Call me when a hand is needed{/if}</button
    >
</div>

{#if bench.isPending}
    <p class="text-quiet" role="status">Looking at the ports…</p>
{:else if bench.isError && !bench.data}
    <Notice tone="amber">{bench.error.message}</Notice>
{:else if bench.data}
    {#if bench.isError}<div class="mb-3"><Notice tone="amber">{bench.error.message}</Notice></div>{/if}
    <div class="grid gap-6 @4xl:grid-cols-[minmax(22rem,24rem)_1fr]">
        <section aria-labelledby="ports">
            <div class="mb-2 flex items-center">
                <h2 id="ports">Ports</h2>
                {#if session.mayAct}<a
                        class="ml-auto flex min-h-8 items-center text-sm underline underline-offset-4"
                        href="/take-in"
                        use:link>Take in without a cable <span class="key ml-1.5 no-underline">t</span></a
                    >{/if}
            </div>
            {#if session.mayAct && free.length > 1}<div class="mb-2 flex flex-wrap gap-2">
                    <button class="act-quiet" onclick={() => (together = 'take-in')}>Take in all {free.length}</button
                    ><button class="act-quiet" onclick={() => (backUp = free.map((p) => p.serial ?? ''))}
                        >Back up all {free.length}</button
                    >
                </div>{/if}
            {#each benches as b (b.id)}
                {#if benches.length > 1}<h3 class="mt-3 mb-1 text-sm text-quiet">{b.name}</h3>{/if}
                {#if b.link === 'silent'}<div class="mb-2">
                        <Notice tone="amber"
                            >The device link does not answer. Jobs go on when it is back; nothing is lost.</Notice
                        >
                    </div>{/if}
                {#if b.ports.length === 0 && b.link === 'up'}<Notice
                        >No device is plugged in. Plug one in, unlock it, and it shows here.</Notice
                    >{/if}
                <ul class="panel divide-y divide-edge p-0">
                    {#each b.ports as port (port.port)}<PortCard
                            {port}
                            silent={b.link === 'silent'}
                            mayAct={session.mayAct}
                            busy={open.isPending}
                            onopen={(serial) => open.mutate({ serial, returns: false })}
                            onreturn={(serial) => open.mutate({ serial, returns: true })}
                            onbackup={(serial) => (backUp = [serial])}
                        />{/each}
                </ul>
            {:else}<Notice tone="amber">No bench is set up. A lead adds one in Settings.</Notice>{/each}
        </section>
        <section class="min-w-0" aria-labelledby="jobs">
            <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
                <h2 id="jobs">Jobs in progress</h2>
                {#if session.mayAct && jobs.length > 1}<button
                        class="act-quiet ml-auto"
                        onclick={() =>
                            (together = jobs.some((j) => j.now.act === 'attest')
                                ? 'attest'
                                : jobs.some((j) => j.position === 'choosing')
                                  ? 'route'
                                  : 'take-in')}>Several at once…</button
                    >{/if}
            </div>
            {#if jobs.length > 1 || board.isFiltered}<BoardBar {board} {jobs} />{/if}
            {#if jobs.length === 0}
                <div class="panel border-dashed text-quiet">
                    No job is in progress. Take in a plugged-in device to begin one: it is read first, and nothing on it
                    changes.
                </div>
            {:else if rows.length === 0}
                <div class="panel border-dashed text-quiet">
                    No job in progress fits. <button class="underline underline-offset-4" onclick={() => board.all()}
                        >Show all {jobs.length}</button
                    >
                </div>
            {:else}
                <ul
                    class="grid gap-2 min-[1700px]:grid-cols-2"
                    aria-labelledby="jobs"
                    onpointerenter={() => board.rest(true, rows)}
                    onpointerleave={() => board.rest(false, rows)}
                >
                    {#each rows as job (job.id)}<JobRow {job} />{/each}
                </ul>
            {/if}
            <BackUpDialog bind:first={backUp} ports={free} />
            <TogetherDialog bind:at={together} ports={free} {jobs} />
            {#if bench.data.ended.length > 0}<EndedJobs latest={bench.data.ended} />{/if}
        </section>
    </div>
{/if}
