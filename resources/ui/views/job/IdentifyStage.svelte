<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { isTold, stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import AboutForm from './AboutForm.svelte';
    import Holds from './Holds.svelte';
    import InTheWay from './InTheWay.svelte';
    import { jobAct } from './job.svelte';
    import WaitingDevice from './WaitingDevice.svelte';
    import WhoItIs from './WhoItIs.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct(() => api.retry(job.id, 'pair'));
    const steps = $derived(stepsOf(job, 'identify').filter((s) => s.state !== 'done'));
</script>

{#if job.differences !== null && job.differences.length > 0}
    <div class="mb-3">
        <Notice tone="amber">
            <p class="font-semibold">
                The device says otherwise than what was said of it; the plan was made again by what it says
            </p>
            <ul>
                {#each job.differences as d (d.field)}<li>
                        {d.name}: said <span class="font-mono line-through">{version(d.said)}</span>, is
                        <span class="font-mono font-semibold">{version(d.read)}</span>
                    </li>{/each}
            </ul>
        </Notice>
    </div>
{/if}
{#if steps.length > 0}<section class="panel mb-3 py-1" aria-label="Steps">
        {#each steps as step (step.code + step.leg)}<StepLine
                {step}
                told={isTold(job, step)}
                onretry={session.mayAct ? () => retry.mutate() : null}
            />{/each}
    </section>{/if}
{#if job.waitingForDevice}<WaitingDevice {job} mayAct={session.mayAct} />
{:else}
    <div class="flex flex-col gap-4">
        <section class="panel grid gap-x-8 gap-y-4 @4xl:grid-cols-[1.1fr_1fr]" aria-labelledby="who">
            <WhoItIs {job} />
            <AboutForm {job} />
        </section>
        {#if job.device !== null}<InTheWay {job} />{/if}
        <Holds device={job.device} />
    </div>
{/if}
