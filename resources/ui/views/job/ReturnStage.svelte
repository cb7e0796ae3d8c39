<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const copy = $derived(job.bags.find((b) => b.loweredFrom !== null));
    const original = $derived(job.bags.find((b) => b.id === copy?.loweredFrom));
</script>

{#if !job.lineCrossed}
    <Notice>The data comes back when the older version is installed.</Notice>
{:else}
    <div class="grid items-start grid-cols-[1.4fr_1fr] gap-4">
        <section class="panel divide-y divide-edge py-1" aria-label="Steps">
            {#each stepsOf(job, 'return') as step (step.code + step.leg)}<StepLine {step} onretry={session.mayAct ? () => retry.mutate(step.code) : null} />{/each}
        </section>
        <section class="panel" aria-labelledby="copy">
            <h2 id="copy" class="mb-2">The lowered copy</h2>
            {#if copy === undefined || original === undefined}
                <p class="text-quiet">Made when the device runs the older version. It shares every payload byte with the sealed original, which stays as it is.</p>
            {:else}
                <p class="text-sm text-quiet">bag-info.txt differs in the version that it declares, and in saying where it comes from:</p>
                <pre class="my-2 overflow-x-auto rounded-md bg-sunken p-3 font-mono text-sm"><span class="block text-quiet line-through">Declared-Version: {original.declaredVersion}</span><span class="block font-semibold">Declared-Version: {copy.declaredVersion}</span><span class="block font-semibold break-all whitespace-pre-wrap">Lowered-From: {copy.loweredFrom}</span></pre>
                <p class="text-sm">The original is {original.state} and untouched.</p>
            {/if}
        </section>
    </div>
{/if}
