<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { handover } from '../../api/handover';
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { dayAndClock, version } from '../../parts/format';
    import HeldOfDevice from '../../parts/HeldOfDevice.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import AftercareList from './AftercareList.svelte';
    import BackedUpPanel from './BackedUpPanel.svelte';
    import ByEye from './ByEye.svelte';
    import EndPanel from './EndPanel.svelte';
    import { jobAct } from './job.svelte';
    import MissingPanel from './MissingPanel.svelte';
    import ProofTable from './ProofTable.svelte';
    import TimesTable from './TimesTable.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const proof = $derived(job.proof);
    const proven = $derived(job.steps.find((s) => s.code === 'prove')?.attempt);
    const told = createQuery(() => ({
        queryKey: ['hand-over', job.id, proven],
        queryFn: () => handover.show(job.id),
        enabled: proof !== null,
        refetchInterval: job.state === 'open' ? 5000 : false,
    }));
    const build = (b: { version: string; build: string }) => `${version(b.version)} (${b.build})`;
    const fromTo = $derived(proof === null ? '' : [...new Set([build(proof.before), build(proof.after)])].join(' → '));
    const tones = {
        'not-yet': 'amber',
        'nothing-missing': 'jade',
        'as-named': 'amber',
        'more-missing': 'loss',
    } as const;
</script>

{#if job.intent === 'back-up-only'}
    <BackedUpPanel {job} />
{:else if proof === null}
    <section class="panel max-w-3xl py-1" aria-label="Steps">
        {#each stepsOf(job, 'hand-over') as step (step.code + step.leg)}<StepLine
                {step}
                onretry={session.mayAct ? () => retry.mutate(step.code) : null}
            />{/each}
    </section>
{:else}
    <Notice tone={tones[job.verdict.code]}>
        <p class="text-lg font-semibold">{job.verdict.words}</p>
        <p class="text-sm">
            {fromTo}; the backup’s inventory against the device’s own listing, {dayAndClock(proof.comparedAt)}.
        </p>
    </Notice>
    <div class="mt-4 grid items-start @4xl:grid-cols-[1.5fr_1fr] gap-4">
        <div class="flex flex-col gap-4">
            {#if proof.missing > 0}<MissingPanel {job} mayAct={session.mayAct && job.state === 'open'} />{/if}
            <ProofTable {proof} />
            {#if session.mayAct && job.comparedWith !== null}<ByEye {job} />{/if}
            {#if told.data}<TimesTable told={told.data} />{/if}
        </div>
        <div class="flex flex-col gap-4">
            {#if job.intent === 'take-up' && job.may['choose-return'].allowed}<p class="panel py-2 text-sm">
                    A backup that was kept from the newer version can still be put back.
                    <a class="underline underline-offset-4" href="#/jobs/{job.id}/return">See what there is</a>
                </p>{/if}
            <EndPanel
                {job}
                losses={told.data?.losses ?? []}
                points={told.data?.aftercare.filter((p) => p.toDo && p.state === 'open') ?? null}
                mayAct={session.mayAct}
            />
            {#if told.isError && !told.data}<Notice tone="amber">{told.error.message}</Notice>{/if}
            {#if told.data}<AftercareList {job} told={told.data} proven={proven ?? 0} mayAct={session.mayAct} />{/if}
            {#if job.state !== 'open'}<HeldOfDevice serial={job.serial} />{/if}
        </div>
    </div>
{/if}
