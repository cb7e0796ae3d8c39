<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { link, push } from 'svelte-spa-router';
    import { toast } from 'svelte-sonner';
    import { api } from '../../api/jobs';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import JobRow from './JobRow.svelte';
    import PortCard from './PortCard.svelte';

    const queries = useQueryClient();
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench, refetchInterval: 1500 }));
    const open = createMutation(() => ({
        mutationFn: api.open,
        onSuccess: (job) => {
            queries.setQueryData(['job', job.id], job);
            void push(`/jobs/${job.id}`);
        },
        onError: (e) => toast.error(e.message),
    }));
    const sorted = $derived([...(bench.data?.open ?? [])].sort((a, b) => Number(b.needsHand) - Number(a.needsHand) || a.id - b.id));
    const hands = $derived(sorted.filter((j) => j.needsHand).length);
</script>

<svelte:head><title>Bench · Jade Step</title></svelte:head>
<div class="mb-4 flex items-baseline gap-4">
    <h1>Bench</h1>
    <p class="text-quiet">
        {#if bench.data}{#if hands > 0}<span class="font-semibold text-amber">{hands === 1 ? 'One job needs' : `${hands} jobs need`} a hand now</span>{:else if sorted.length > 0}Nothing needs a hand now{:else}No job is in progress{/if}{/if}
    </p>
</div>

{#if bench.isPending}
    <p class="text-quiet" role="status">Looking at the ports…</p>
{:else if bench.isError && !bench.data}
    <Notice tone="amber">{bench.error.message}</Notice>
{:else if bench.data}
    {#if bench.isError}<div class="mb-3"><Notice tone="amber">{bench.error.message}</Notice></div>{/if}
    <div class="grid grid-cols-[minmax(17rem,22rem)_1fr] gap-6">
        <section aria-labelledby="ports">
            <div class="mb-2 flex items-center"><h2 id="ports">Ports</h2>{#if session.mayAct}<a class="ml-auto text-sm underline underline-offset-4" href="/take-in" use:link>Take in without a cable <span class="key">t</span></a>{/if}</div>
            {#if bench.data.link === 'silent'}
                <Notice tone="amber">The device link does not answer. Jobs go on when it is back; nothing is lost.</Notice>
            {:else if bench.data.ports.length === 0}
                <Notice>No device is plugged in. Plug one in, unlock it, and it shows here.</Notice>
            {:else}
                <ul class="flex flex-col gap-3">
                    {#each bench.data.ports as port (port.port)}
                        <PortCard {port} mayAct={session.mayAct} busy={open.isPending} onopen={(serial) => open.mutate(serial)} />
                    {/each}
                </ul>
            {/if}
        </section>
        <section aria-labelledby="jobs">
            <h2 id="jobs" class="mb-2">Jobs in progress</h2>
            {#if sorted.length === 0}
                <div class="panel border-dashed text-quiet">No job is in progress. Take in a plugged-in device to begin one: it is read first, and nothing on it changes.</div>
            {:else}
                <ul class="flex flex-col gap-2">{#each sorted as job (job.id)}<JobRow {job} />{/each}</ul>
            {/if}
            {#if bench.data.ended.length > 0}
                <h2 class="mt-6 mb-2">Ended</h2>
                <ul class="flex flex-col gap-2">{#each bench.data.ended as job (job.id)}<JobRow {job} />{/each}</ul>
            {/if}
        </section>
    </div>
{/if}
