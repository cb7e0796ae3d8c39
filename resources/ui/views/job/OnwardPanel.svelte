<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { install } from '../../api/install';
    import type { Goal, Job, Route } from '../../api/types';
    import { kindName, minutes, version } from '../../parts/format';
    import { lostNames } from '../../parts/losses';
    import Ask from '../../parts/Ask.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import CrossingPath from './CrossingPath.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const plans = createQuery(() => ({
        queryKey: ['onward', job.id],
        queryFn: () => install.onward(job.id),
        refetchInterval: 15_000,
    }));
    const go = jobAct(
        (to: { goal: Goal; route: Route }) => install.goOnward(job.id, to.goal, to.route),
        (j) => void push(`/jobs/${j.id}`),
    );
    const lost = (r: Route) => lostNames(r, job.device);
    let asked = $state<{ goal: Goal; route: Route } | null>(null);
    const offered = $derived(
        (plans.data?.plans ?? []).flatMap(({ goal, plan }) =>
            plan.routes.slice(0, 1).map((route) => ({ goal, route })),
        ),
    );
</script>

<section class="panel border-2 border-amber-mark" aria-labelledby="onward">
    <h2 id="onward">From here there is only forward</h2>
    <p class="text-sm text-quiet">
        The data is in the sealed copy. Try the step again, with another cable or port if it failed twice; that asks for
        a new permit too. Or take the next route from where the device stands now:
    </p>
    {#if plans.isPending}<p class="mt-2 text-quiet" role="status">Planning from where it stands…</p>
    {:else if plans.isError}<div class="mt-2"><Notice tone="amber">{plans.error.message}</Notice></div>
    {:else}
        <ul class="mt-2 flex flex-col gap-2">
            {#each offered as { goal, route }, i (i)}
                <li class="grid grid-cols-[1fr_auto] items-center gap-3 rounded-md bg-sunken p-3">
                    <div>
                        <CrossingPath {route} />
                        <p class="mt-1 text-sm">
                            {minutes(route.minutes.expected)}; {lost(route).length === 0
                                ? 'nothing lost by the plan'
                                : `lost: ${lost(route).join(', ')}`}{route.losses.atRisk.length > 0
                                ? `; at risk: ${route.losses.atRisk.map(kindName).join(', ')}`
                                : ''}
                        </p>
                    </div>
                    {#if session.mayAct}<button
                            class={lost(route).length > 0 ? 'act-quiet' : 'act'}
                            disabled={go.isPending}
                            onclick={() =>
                                lost(route).length > 0 ? (asked = { goal, route }) : go.mutate({ goal, route })}
                            >{lost(route).length > 0 ? 'Accept these losses and go to' : 'Go to'}
                            {version(route.legs.at(-1)?.to.version ?? '')}</button
                        >{/if}
                </li>
            {:else}<li>
                    <Notice tone="amber"
                        >Nothing is signed for it now that this backup could be put back on. Trying again stays open;
                        refresh the almanac in a while.</Notice
                    >
                </li>{/each}
        </ul>
    {/if}
</section>
<Ask
    open={asked !== null}
    title="Take this route, with what it loses?"
    yes="Accept these losses"
    loss
    busy={go.isPending}
    onyes={() => asked !== null && go.mutate(asked)}
    onno={() => (asked = null)}>Lost: {asked === null ? '' : lost(asked.route).join(', ')}.</Ask
>
