<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import type { Goal, Job, Route } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import GoalForm from './GoalForm.svelte';
    import { jobAct } from './job.svelte';
    import LedgerTable from './LedgerTable.svelte';
    import Rejected from './Rejected.svelte';
    import RouteCard from './RouteCard.svelte';
    import WindowChart from './WindowChart.svelte';

    let { job }: { job: Job } = $props();
    const windows = createQuery(() => ({ queryKey: ['windows', job.id], queryFn: () => api.windows(job.id), refetchInterval: 60_000, enabled: job.device !== null }));
    const plan = jobAct((goal: Goal) => api.plan(job.id, goal));
    const accept = jobAct((route: Route) => api.accept(job.id, route), (j) => void push(`/jobs/${j.id}`));
    const step = $derived(job.steps.find((s) => s.code === 'choose-route'));
    const open = $derived(step?.state === 'needs-hand' && job.state === 'open');
    let picked = $state<string | null>(null);
    const routes = $derived(job.route !== null ? [job.route] : (job.plan?.routes ?? []));
    const route = $derived(routes.find((r) => r.id === picked) ?? routes[0] ?? null);
</script>

{#if job.plan === null}
    <Notice>The routes are worked out as soon as the device has been read.</Notice>
{:else}
    {#if step?.problem}<div class="mb-3"><Notice tone="amber">{step.problem.detail} <span class="code !text-inherit">{step.problem.code}</span></Notice></div>{/if}
    <div class="grid grid-cols-[1.25fr_1fr] gap-4">
        <section class="panel" aria-labelledby="signed">
            <h2 id="signed" class="mb-1">What is signed for this model</h2>
            {#if windows.data}<WindowChart windows={windows.data} wanted={route?.legs[0]?.to.build ?? null} installed={job.device?.build ?? null} />
            {:else if windows.isError}<Notice tone="amber">{windows.error.message}</Notice>
            {:else}<p class="text-quiet" role="status">Reading the almanac…</p>{/if}
            {#if job.plan.rejected.length > 0}<Rejected rejected={job.plan.rejected} />{/if}
        </section>
        <div class="flex flex-col gap-4">
            {#if open && session.mayAct}<GoalForm goal={job.goal} busy={plan.isPending} onplan={(goal) => plan.mutate(goal)} />{/if}
            {#if route === null}
                <Notice tone="amber"><strong>Nothing reaches this goal now.</strong> {job.plan.nearest === null ? 'No older build is reachable for this device.' : `The nearest that is reachable: ${job.plan.nearest.version} (${job.plan.nearest.build}).`} Choose another goal.</Notice>
            {:else}
                {#if routes.length > 1}<h2>{routes.length} routes that no other beats, best first</h2>{/if}
                {#each routes as r (r.id)}
                    <RouteCard route={r} best={routes[0] ?? r} shown={r.id === route.id} accepted={job.route !== null} mayAccept={open && session.mayAct} busy={accept.isPending} onshow={() => (picked = r.id)} onaccept={() => accept.mutate(r)} />
                {/each}
            {/if}
        </div>
        {#if route !== null}<section class="panel col-span-2" aria-labelledby="ledger"><h2 id="ledger" class="mb-2">Where each kind comes back from</h2><LedgerTable {route} device={job.device} /></section>{/if}
    </div>
{/if}
