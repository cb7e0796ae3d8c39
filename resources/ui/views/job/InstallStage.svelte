<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const leg = $derived(job.route?.legs[0]);
</script>

{#if !job.lineCrossed}
    <Notice>The install begins on the other side of the erase line. Nothing here can happen before it is crossed.</Notice>
{:else}
    <div class="grid items-start grid-cols-[1.4fr_1fr] gap-4">
        <section class="panel divide-y divide-edge py-1" aria-label="Steps">
            {#each stepsOf(job, 'install') as step (step.code)}<StepLine {step} onretry={session.mayAct ? () => retry.mutate(step.code) : null} />{/each}
        </section>
        <section class="panel" aria-labelledby="what">
            <h2 id="what" class="mb-2">What is being installed</h2>
            <dl class="grid items-start grid-cols-[auto_1fr] gap-x-4 gap-y-1">
                <dt class="text-quiet">Version</dt><dd>{version(leg?.to.version ?? '')} <span class="code">{leg?.to.build}</span></dd>
                <dt class="text-quiet">Package</dt><dd class="font-mono text-sm break-all">{leg?.package.fileName}</dd>
                <dt class="text-quiet">SHA-256</dt><dd class="font-mono text-xs break-all">{leg?.package.sha256}</dd>
                <dt class="text-quiet">Crossed by</dt><dd>{job.lineCrossedBy}</dd>
            </dl>
            <p class="mt-3 text-sm text-quiet">Leave the cable in. If the device is not recognised within a minute after its restart, unplug it and plug it in again: the job goes on by itself.</p>
        </section>
    </div>
{/if}
