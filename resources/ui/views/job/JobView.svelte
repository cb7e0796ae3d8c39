<script lang="ts">
    import type { Component } from 'svelte';
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import type { Job, Stage } from '../../api/types';
    import { INTENT, STAGE } from '../../api/words';
    import { version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { stageOf, stagesOf } from '../../parts/stages';
    import StonePath from '../../parts/StonePath.svelte';
    import { session } from '../../shell/session.svelte';
    import ChooseStage from './ChooseStage.svelte';
    import GiveBack from './GiveBack.svelte';
    import HandOverStage from './HandOverStage.svelte';
    import IdentifyStage from './IdentifyStage.svelte';
    import InstallStage from './InstallStage.svelte';
    import { jobAct, watchJob } from './job.svelte';
    import NowBar from './NowBar.svelte';
    import PassphraseForm from './PassphraseForm.svelte';
    import ReturnStage from './ReturnStage.svelte';
    import SafeguardStage from './SafeguardStage.svelte';

    let { params }: { params: { id: string; stage?: string } } = $props();

    const views: Record<Stage, Component<{ job: Job }>> = {
        identify: IdentifyStage,
        choose: ChooseStage,
        safeguard: SafeguardStage,
        install: InstallStage,
        return: ReturnStage,
        'hand-over': HandOverStage,
    };
    const job = watchJob(() => Number(params.id));
    const shown = $derived((params.stage ?? (job.data === undefined ? 'identify' : stageOf(job.data))) as Stage);
    const View = $derived(views[shown] ?? IdentifyStage);
    const reopen = jobAct(() => api.reopen(Number(params.id)));
    const leave = jobAct(
        () => api.leave(Number(params.id)),
        () => void push('/'),
    );

    function onkeydown(event: KeyboardEvent) {
        if (
            event.target instanceof HTMLElement &&
            event.target.closest('input, textarea, select, [role=dialog]') !== null
        )
            return;
        const stage = job.data === undefined ? undefined : stagesOf(job.data)[Number(event.key) - 1];
        if (stage !== undefined) void push(`/jobs/${params.id}/${stage.stage}`);
        else if (event.key === 'n') void push(`/jobs/${params.id}`);
    }
    const title = $derived(job.data === undefined ? 'Job' : `${job.data.serial} · ${STAGE[shown]}`);
</script>

<svelte:window {onkeydown} />
<svelte:head><title>{title} · Jade Step</title></svelte:head>

{#if job.isPending}
    <p class="text-quiet" role="status">Opening the job…</p>
{:else if job.data === undefined}
    <Notice tone="amber">{job.error?.message}</Notice>
{:else}
    <div class="mb-3 flex items-baseline gap-4">
        <h1>
            {job.data.variant ?? job.data.modelName ?? 'Device'}
            <span class="font-mono text-base font-normal text-quiet">{job.data.serial}</span>
        </h1>
        {#if job.data.fromVersion !== null}<p>
                {version(job.data.fromVersion)}{#if job.data.toVersion !== null}&nbsp;→ <span class="font-semibold"
                        >{version(job.data.toVersion)}</span
                    >{/if}
            </p>{/if}
        <span class="text-sm text-quiet"
            >{job.data.intent === 'take-down' ? '' : `${INTENT[job.data.intent]} · `}job {job.data.id}, taken in by {job
                .data.openedBy} ·
            <a class="underline underline-offset-4" href="#/journal?serial={encodeURIComponent(job.data.serial)}"
                >acts on this device</a
            ></span
        >
        {#if session.mayAct && job.data.may.leave.allowed}<button
                class="act-quiet ml-auto"
                onclick={() => leave.mutate()}>Leave the device as it is</button
            >{:else if session.mayAct && job.data.may['give-back'].allowed}<GiveBack job={job.data} />
        {:else if session.leads && job.data.may.reopen.allowed}<button
                class="act-quiet ml-auto"
                disabled={reopen.isPending}
                onclick={() => reopen.mutate()}>Open this job again</button
            >{/if}
    </div>
    <StonePath job={job.data} {shown} />
    {#if job.isError}<div class="mt-3"><Notice tone="amber">{job.error.message}</Notice></div>{/if}
    <NowBar job={job.data} {shown} />
    {#if session.mayAct}<PassphraseForm job={job.data} />{/if}
    <View job={job.data} />
{/if}
