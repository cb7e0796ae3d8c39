<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { handover } from '../../api/handover';
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { dayAndClock, kindName, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import AftercareList from './AftercareList.svelte';
    import EndPanel from './EndPanel.svelte';
    import { jobAct } from './job.svelte';
    import MissingPanel from './MissingPanel.svelte';
    import ProofTable from './ProofTable.svelte';
    import TimesTable from './TimesTable.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const proof = $derived(job.proof);
    const unexpected = $derived(proof?.kinds.filter((k) => proof.unexpected.includes(k.kind)) ?? []);
    const proven = $derived(job.steps.find((s) => s.code === 'prove')?.attempt);
    const told = createQuery(() => ({ queryKey: ['hand-over', job.id, proven], queryFn: () => handover.show(job.id), enabled: proof !== null, refetchInterval: job.state === 'open' ? 5000 : false }));
    const headline = $derived(
        proof === null ? ''
        : proof.nothingLost ? 'Nothing missing.'
        : unexpected.length > 0 ? `Otherwise than promised: ${unexpected.map((k) => kindName(k.kind)).join(', ')}.`
        : proof.missing > 0 ? 'All is as the plan named it; what was named as lost or out of date is.'
        : 'Every item is back; what the plan named beside the items is as it said.',
    );
</script>

{#if proof === null}
    <section class="panel max-w-3xl py-1" aria-label="Steps">{#each stepsOf(job, 'hand-over') as step (step.code + step.leg)}<StepLine {step} onretry={session.mayAct ? () => retry.mutate(step.code) : null} />{/each}</section>
{:else}
    <Notice tone={proof.nothingLost ? 'jade' : unexpected.length > 0 ? 'loss' : 'amber'}>
        <p class="text-lg font-semibold">{headline}</p>
        <p class="text-sm">{version(proof.before.version)} ({proof.before.build}) → {version(proof.after.version)} ({proof.after.build}); the backup’s inventory against the device’s own listing, {dayAndClock(proof.comparedAt)}.</p>
    </Notice>
    <div class="mt-4 grid items-start grid-cols-[1.5fr_1fr] gap-4">
        <div class="flex flex-col gap-4">
            {#if proof.missing > 0}<MissingPanel {job} mayAct={session.mayAct && job.state === 'open'} />{/if}
            <ProofTable {proof} />
            {#if told.data}<TimesTable told={told.data} />{/if}
        </div>
        <div class="flex flex-col gap-4">
            <EndPanel {job} losses={told.data?.losses ?? []} mayAct={session.mayAct} />
            {#if told.isError && !told.data}<Notice tone="amber">{told.error.message}</Notice>{/if}
            {#if told.data}<AftercareList {job} told={told.data} proven={proven ?? 0} mayAct={session.mayAct} />{/if}
        </div>
    </div>
{/if}
