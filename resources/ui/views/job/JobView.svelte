<script lang="ts">
    import type { Component } from 'svelte';
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import type { Job, Stage } from '../../api/types';
    import { INTENT, STAGE } from '../../api/words';
    import Ask from '../../parts/Ask.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { stageOf, stagesOf } from '../../parts/stages';
    import StonePath from '../../parts/StonePath.svelte';
    import { session } from '../../shell/session.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { isShortcut } from '../../shell/keys';
    import ChooseStage from './ChooseStage.svelte';
    import DeviceHead from './DeviceHead.svelte';
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
    let leaving = $state(false);
    const leave = jobAct(
        () => api.leave(Number(params.id)),
        (j) => {
            leaving = false;
            if (session.leads)
                notices.offerUndo('The job has ended; the device is as it was.', {
                    label: 'Open it again',
                    run: () => api.reopen(j.id).then(() => void push(`/jobs/${j.id}`)),
                });
            void push('/');
        },
    );

    function onkeydown(event: KeyboardEvent) {
        if (!isShortcut(event)) return;
        const stage = job.data === undefined ? undefined : stagesOf(job.data)[Number(event.key) - 1];
        if (stage !== undefined) void push(`/jobs/${params.id}/${stage.stage}`);
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
    <div class="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <DeviceHead job={job.data} />
        <span class="text-sm text-quiet"
            >{job.data.intent === 'take-down' ? '' : `${INTENT[job.data.intent]} · `}job {job.data.id}, taken in by {job
                .data.openedBy} ·
            <a class="underline underline-offset-4" href="#/journal?serial={encodeURIComponent(job.data.serial)}"
                >acts on this device</a
            ></span
        >
        {#if session.mayAct && job.data.may.leave.allowed}<button
                class="act-quiet ml-auto"
                onclick={() => (leaving = true)}>Leave the device as it is</button
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
    <Ask
        bind:open={leaving}
        title="End this job and leave the device as it is?"
        yes="Leave it as it is"
        no="Go on with the job"
        busy={leave.isPending}
        onyes={() => leave.mutate()}
        >Nothing on the device was changed. What was backed up stays on the Shelf. {session.leads
            ? 'You can open the job again within a day.'
            : 'A lead can open the job again within a day.'}</Ask
    >
{/if}
