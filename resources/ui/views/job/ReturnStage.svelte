<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api } from '../../api/jobs';
    import { returns } from '../../api/returns';
    import type { Job, StepCode } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { isTold, stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import BaseMatrix from './BaseMatrix.svelte';
    import CloudForm from './CloudForm.svelte';
    import { jobAct } from './job.svelte';
    import LoweredPanel from './LoweredPanel.svelte';
    import ReturnTally from './ReturnTally.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    let lookedThrough = $state<number | null>(null); // the job for which backups of other devices are shown too
    const others = $derived(lookedThrough === job.id);
    const onothers = () => (lookedThrough = others ? null : job.id);
    const steps = $derived(stepsOf(job, 'return'));
    const has = $derived(steps.length > 0 && (job.route !== null || job.intent === 'return-only'));
    const mayChoose = $derived(job.may['choose-return'].allowed);
    const told = createQuery(() => ({
        queryKey: ['return', job.id, others],
        queryFn: () => returns.show(job.id, others),
        placeholderData: (before, query) => (query?.queryKey[1] === job.id ? before : undefined),
        enabled: job.route !== null || job.intent === 'return-only',
        refetchInterval: job.state === 'open' ? 1500 : false,
    }));
    // the device has said no, or somebody wants to choose: then the choice comes first
    const choosing = $derived(
        steps.some((s) => (s.state === 'failed' && s.code === 'put-back') || s.problem?.code === 'return-wanted') ||
            job.returnHeld,
    );
</script>

{#if !has}
    <Notice
        >{job.route === null
            ? 'What comes back is decided with the route. First choose one.'
            : job.intent === 'take-up'
              ? 'The data stays on the device. When the newer version runs, a backup kept from there can be put back.'
              : 'On this route the data never leaves the device: nothing has to be put back.'}</Notice
    >
    {#if mayChoose && told.data}<div class="mt-3">
            <BaseMatrix {job} told={told.data} mayAct={session.mayAct} {others} {onothers} />
        </div>{/if}
{:else}
    {#if told.isError && !told.data}<div class="mb-3"><Notice tone="amber">{told.error.message}</Notice></div>{/if}
    {#if choosing && told.data}<div class="mb-4">
            <BaseMatrix {job} told={told.data} mayAct={session.mayAct} {others} {onothers} />
        </div>{/if}
    <div class="grid items-start @4xl:grid-cols-[1.3fr_1fr] gap-4">
        <div class="flex flex-col gap-4">
            <section class="panel divide-y divide-edge py-1" aria-label="Steps">
                {#each steps as step (step.code + step.leg)}<StepLine
                        {step}
                        told={isTold(job, step)}
                        onretry={session.mayAct ? () => retry.mutate(step.code) : null}
                    />{/each}
            </section>
            {#if told.data}<ReturnTally {job} told={told.data} mayAct={session.mayAct} />{/if}
        </div>
        <div class="flex flex-col gap-4">
            {#if told.data}<LoweredPanel {job} told={told.data} />{/if}
            {#if job.intent === 'return-only' && session.mayAct && job.may['tell-of-cloud'].allowed}<div class="panel">
                    <CloudForm {job} />
                </div>{/if}
        </div>
    </div>
    {#if !choosing && told.data}<div class="mt-4">
            <BaseMatrix {job} told={told.data} mayAct={session.mayAct} {others} {onothers} />
        </div>{/if}
{/if}
