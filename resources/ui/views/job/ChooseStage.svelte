<script lang="ts">
    import { FlaskConical } from '@lucide/svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import type { Job, Route, WindowLane, WrittenGoal } from '../../api/types';
    import { counted, dayAndClock, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import Term from '../../parts/Term.svelte';
    import WindowChart from '../../parts/WindowChart.svelte';
    import { isTold } from '../../parts/stages';
    import { session } from '../../shell/session.svelte';
    import BackupChoice from './BackupChoice.svelte';
    import Evidence from './Evidence.svelte';
    import GoalForm from './GoalForm.svelte';
    import { jobAct } from './job.svelte';
    import LedgerTable from './LedgerTable.svelte';
    import Rejected from './Rejected.svelte';
    import RoutesTable from './RoutesTable.svelte';
    import SinceAccepted from './SinceAccepted.svelte';
    import { WhatIf } from './whatif.svelte';
    import WhatIfPanel from './WhatIfPanel.svelte';

    let { job }: { job: Job } = $props();
    const windows = createQuery(() => ({
        queryKey: ['windows', job.id, job.device?.hardwareId],
        queryFn: () => api.windows(job.id),
        refetchInterval: 60_000,
        enabled: job.device?.hardwareId != null,
    }));
    const plan = jobAct(
        (goal: WrittenGoal) => api.plan(job.id, goal),
        () => {},
        () => {}, // told beside the goal
    );
    const accept = jobAct(
        ([route, lookFirst]: [Route, boolean]) => api.accept(job.id, route, lookFirst),
        (j) => void push(`/jobs/${j.id}`),
    );
    // what ends a loss changes how the backup is taken, and the plan is made again
    const remedy = jobAct(({ code, kind }: { code: 'write-out' | 'encrypt'; kind: string }) =>
        api.backup(
            job.id,
            code === 'encrypt'
                ? { ...job.backup, encryption: 'encrypted' }
                : { ...job.backup, sideExports: [...new Set([...job.backup.sideExports, kind])] },
        ),
    );
    const goesUp = $derived(job.goal !== null && 'exact' in job.goal && job.goal.exact === job.keptFromNewer?.madeOn);
    const nearestWords = (n: { version: string; build: string }) =>
        `The nearest that is reachable: ${version(n.version)} (${n.build}).`;
    const what = new WhatIf(() => job.id);
    let pretending = $state(false);
    const step = $derived(job.steps.find((s) => s.code === 'choose-route'));
    const again = jobAct(() => api.chooseAgain(job.id));
    // a goal that was rejected has no routes; those of the goal before are not offered meanwhile
    const rejectedGoal = $derived(plan.isError);
    const open = $derived(job.may['accept-route'].allowed && !rejectedGoal);
    const planning = $derived(session.mayAct && job.may.plan.allowed);
    const now = $derived(pretending && what.plan !== null ? what.plan : job.plan);
    const pretended = $derived(pretending && what.plan !== null);
    let picked = $state<string | null>(null);
    let lane = $state<string | null>(null);
    const routes = $derived(job.route !== null && !pretended ? [job.route] : (now?.routes ?? []));
    const route = $derived(routes.find((r) => r.id === picked) ?? routes[0] ?? null);
    const ends = $derived(route?.legs.map((l) => l.to.build) ?? []);
    // builds that are shut stay folded until somebody asks for them
    let all = $state(false);
    const everyLane = $derived(windows.data?.lanes ?? []);
    const isShown = (l: WindowLane) =>
        l.state !== 'closed' || l.build === job.device?.build || ends.includes(l.build) || l.build === lane;
    const shut = $derived(everyLane.filter((l) => !isShown(l)).length);
    const lanes = $derived(all || shut === everyLane.length ? everyLane : everyLane.filter(isShown));
    const chosen = $derived(
        windows.data?.lanes.find((l) => l.build === (lane ?? route?.legs.at(-1)?.to.build)) ?? null,
    );
</script>

{#if job.plan === null}
    <Notice>The routes are worked out as soon as the device has been read.</Notice>
{:else}
    <div class="flex flex-col gap-3">
        {#if step?.problem && !isTold(job, step)}<Notice tone="amber"
                >{step.problem.detail} <span class="code !text-inherit">{step.problem.code}</span></Notice
            >{/if}
        <SinceAccepted {job} mayAct={session.mayAct} />
        <div class="flex flex-wrap items-start gap-3">
            {#if planning}{#key JSON.stringify(job.goal)}<GoalForm
                        goal={job.goal}
                        busy={plan.isPending}
                        problem={plan.error?.message ?? null}
                        onplan={(goal) => plan.mutate(goal)}
                    />{/key}{/if}
            {#if planning && job.device !== null && !job.waitingForDevice}<BackupChoice {job} />{/if}
            {#if job.state === 'open' && !job.lineCrossed}<button
                    class="act-quiet ml-auto"
                    aria-expanded={pretending}
                    data-what-if
                    onclick={() => {
                        pretending = !pretending;
                        if (!pretending) what.clear();
                    }}
                    ><FlaskConical size="1.15em" aria-hidden="true" />{pretending
                        ? 'Leave what-if'
                        : 'What if…'}</button
                >{/if}
        </div>
        {#if planning && job.keptFromNewer !== null && !goesUp}{@const kept = job.keptFromNewer}
            <div class="panel flex flex-wrap items-center gap-x-4 gap-y-1 py-2 text-sm" data-kept={kept.id}>
                <p class="flex-1">
                    Kept from {version(kept.madeOn)}: <strong>{kept.label}</strong>, {dayAndClock(kept.takenAt)}. When
                    the device has gone up again it can be put back as it is.
                </p>
                <button class="act-quiet" disabled={plan.isPending} onclick={() => plan.mutate({ exact: kept.madeOn })}
                    >Up again to {version(kept.madeOn)}</button
                >
            </div>{/if}
        {#if session.mayAct && job.may['choose-again'].allowed}<div class="flex items-center gap-3 text-sm">
                <button class="act-quiet" disabled={again.isPending} onclick={() => again.mutate()}
                    >Choose another route</button
                ><span class="text-quiet">The backup is kept, and used again where it fits.</span>
            </div>{/if}
        {#if pretended}<Notice tone="amber"
                ><strong>Pretended:</strong>
                {what.pretended.join('; ')}. The routes and the ledger show what would be.</Notice
            >{/if}
        <div class="grid items-start gap-3 @4xl:grid-cols-[1.05fr_1fr]">
            <div class="flex min-w-0 flex-col gap-3">
                {#if rejectedGoal && !pretended}
                    <Notice tone="amber"
                        >This goal was not understood, so nothing was planned for it. The plan before it is kept: write
                        the goal anew to see routes.</Notice
                    >
                {:else if route === null}
                    <Notice tone="amber"
                        ><strong
                            >{job.goalIsInstalled
                                ? 'This is what is installed.'
                                : `Nothing reaches this goal${pretended ? ' then' : ' now'}.`}</strong
                        >
                        {job.goalIsInstalled
                            ? ''
                            : now?.nearest == null
                              ? 'No build on the way to it is reachable for this device.'
                              : nearestWords(now.nearest)}
                        {job.device?.hardwareId === null
                            ? 'First settle which variant it is.'
                            : job.goalIsInstalled
                              ? 'Nothing has to be done for it; for anything else, choose another goal.'
                              : 'Choose another goal.'}
                        {#if planning && !pretended && now?.nearest != null}{@const nearest = now.nearest}<button
                                class="act-quiet ml-3 !text-ink"
                                disabled={plan.isPending}
                                onclick={() => plan.mutate({ exact: nearest.version })}
                                >Go to {version(nearest.version)} instead</button
                            >{/if}</Notice
                    >
                {:else}
                    <section
                        class="panel py-3 {pretended ? 'border-2 border-dashed border-amber-mark' : ''}"
                        aria-label="Routes"
                    >
                        {#if routes.length > 1}<h2 class="sr-only">
                                {routes.length} routes that no other beats, best first
                            </h2>{/if}
                        <RoutesTable
                            {routes}
                            device={job.device}
                            refused={job.refusedPermits}
                            chosen={route.id}
                            taken={job.route !== null && !pretended}
                            mayTake={open && session.mayAct && !pretended}
                            busy={accept.isPending || remedy.isPending}
                            onchoose={(id) => (picked = id)}
                            labels={job.baseLabels}
                            chances={pretended ? [] : job.chances}
                            remedies={pretended ? {} : job.remedies}
                            onremedy={planning && job.may['choose-backup'].allowed
                                ? (code, kind) => remedy.mutate({ code, kind })
                                : null}
                            ontake={(r, lookFirst) => accept.mutate([r, lookFirst])}
                        />
                        {#if job.waitingForDevice}<p class="mt-2 text-sm text-quiet">
                                A route can be taken when the device is plugged in and has told what it holds.
                            </p>{/if}
                    </section>
                {/if}
                {#if now !== null && now.rejected.length > 0}<section class="panel py-1">
                        <Rejected rejected={now.rejected} open={route === null} />
                    </section>{/if}
            </div>
            <div class="flex min-w-0 flex-col gap-3">
                {#if pretending}<WhatIfPanel {what} {job} />{/if}
                <section class="panel py-3" aria-labelledby="signed">
                    <div class="flex flex-wrap items-baseline gap-x-4">
                        <h2 id="signed">What is <Term of="signing-window">signed</Term> for this model</h2>
                        {#if shut > 0}<button
                                class="min-h-8 text-sm underline underline-offset-4"
                                aria-expanded={all}
                                onclick={() => (all = !all)}
                                >{all
                                    ? 'Without what is shut'
                                    : `${counted(shut, 'more build')}, not signed now`}</button
                            >{/if}
                    </div>
                    {#if windows.data}<WindowChart
                            windows={{ ...windows.data, lanes }}
                            chosen={chosen?.build ?? null}
                            installed={job.lineCrossed ? null : (job.device?.build ?? null)}
                            taken={ends}
                            onchoose={(b) => (lane = b)}
                        />
                        {#if chosen && lane !== null}<p class="mt-2 border-l-4 border-jade pl-3" aria-live="polite">
                                <strong>{chosen.label}</strong> ({chosen.channel}). {chosen.words}
                            </p>{/if}
                    {:else if windows.isError}<Notice tone="amber">{windows.error.message}</Notice>
                    {:else if job.device?.hardwareId == null}<p class="text-quiet">
                            Shown as soon as one <Term of="hardware-id" /> is left: see Identify.
                        </p>
                    {:else}<p class="text-quiet" role="status">Reading the almanac…</p>{/if}
                </section>
                {#if route !== null}<section class="panel py-3" aria-labelledby="ledger">
                        <h2 id="ledger">Where each kind comes back from</h2>
                        {#if route.kinds.length === 0}<p class="text-sm text-quiet">
                                What the device holds is known when it is plugged in.
                            </p>{:else}<LedgerTable
                                {route}
                                device={job.device}
                            />{/if}{#if job.device !== null && route.base?.treatment === 'lowered'}<Evidence
                                osLine={job.device.osLine}
                                base={route.base}
                            />{/if}
                    </section>{/if}
            </div>
        </div>
    </div>
{/if}
