<script lang="ts">
    import { ArrowRight, Hand, ShieldAlert, Undo2 } from '@lucide/svelte';
    import type { Job, Stage } from '../../api/types';
    import { STAGES, stageOf } from '../../parts/stages';

    let { job, shown }: { job: Job; shown: Stage } = $props();
    const at = $derived(stageOf(job));
    const next = $derived(STAGES.find((s) => s.stage === at)?.name);
    const still = $derived(job.steps.some((s) => s.doNotDisturb));
</script>

<div class="my-3 flex min-h-11 flex-wrap items-center gap-x-6 gap-y-1 rounded-md px-4 py-2 {still ? 'bg-amber-wash text-amber' : 'bg-sunken'}" aria-live="polite">
    {#if job.state === 'done'}
        <span class="font-semibold">This job is done. The device was handed over.</span>
    {:else if job.state === 'done-with-losses'}
        <span class="font-semibold">This job is done. The device was handed over, without {job.losses?.join(', ')}.</span>
    {:else if job.state === 'unfinished'}
        <span class="font-semibold text-amber">This device was given back unfinished by {job.endedBy}: {job.endReason}</span>
    {:else if job.state === 'abandoned'}
        <span class="font-semibold">This job was left before the erase line. The device is as it was.</span>
    {:else}
        {#if still}
            <span class="flex items-center gap-2 font-semibold"><ShieldAlert size={20} aria-hidden="true" />Do not disturb: leave the cable in and the device alone</span>
        {:else if job.needsHand && job.current !== null}
            <span class="flex items-center gap-2 font-semibold text-amber"><Hand size={20} aria-hidden="true" />Now: {job.current.problem?.code === 'return-held' ? 'Choose what is put back' : job.current.title}</span>
        {:else if job.current !== null}
            <span class="font-semibold">Now: {job.current.title}</span><span class="text-quiet">Nothing to do for you.</span>
        {/if}
        <span class="flex items-center gap-2 text-sm">
            {#if job.installBegun && job.eraseBegun}<ArrowRight size={18} aria-hidden="true" />Past the erase line: only forward. The data is in the sealed copy.
            {:else if job.installBegun}<ArrowRight size={18} aria-hidden="true" />The install has begun: only forward. The data stays on the device, and is in the sealed copy.
            {:else if job.lineCrossed}<Undo2 size={18} aria-hidden="true" />The line is open, and nothing has been written yet: it can still be left.
            {:else}<Undo2 size={18} aria-hidden="true" />Before the erase line: everything can still be undone.{/if}
        </span>
        {#if shown !== at}<a class="act-quiet ml-auto" href="#/jobs/{job.id}/{at}">Go to {next} <span class="key">n</span></a>{/if}
    {/if}
</div>
