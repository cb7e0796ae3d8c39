<script lang="ts">
    import { untrack } from 'svelte';
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    /** Whose the device is, how they are reached, what its box says, and notes: all of it goes with the job. */
    let { job }: { job: Job } = $props();
    let about = $state(untrack(() => ({ ...job.about })));
    const keep = jobAct(() => api.describe(job.id, about));
    const changed = $derived(
        (Object.keys(about) as (keyof Job['about'])[]).some((field) => about[field] !== job.about[field]),
    );
    const may = $derived(session.mayAct && job.may.describe.allowed);
</script>

<div aria-labelledby="about" role="group">
    <div class="flex items-baseline gap-4">
        <h3 id="about" class="font-semibold">Whose it is</h3>
        <a class="ml-auto text-sm underline underline-offset-4" href="#/jobs/{job.id}/label">Print its label</a>
    </div>
    {#if job.boxContradiction !== null}<div class="my-2"><Notice tone="amber">{job.boxContradiction}</Notice></div>{/if}
    <form
        class="mt-1 grid grid-cols-2 gap-x-4 gap-y-2 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            keep.mutate();
        }}
    >
        <label class="flex flex-col"
            >Holder<input
                class="field !min-h-10"
                maxlength="200"
                disabled={!may}
                name="holder"
                bind:value={about.holder}
            /></label
        >
        <label class="flex flex-col"
            >How they are reached<input
                class="field !min-h-10"
                maxlength="200"
                disabled={!may}
                name="contact"
                bind:value={about.contact}
            /></label
        >
        <label class="flex flex-col"
            >What its box says<input
                class="field !min-h-10"
                maxlength="200"
                disabled={!may}
                placeholder="model and variant"
                name="box"
                bind:value={about.box}
            /></label
        >
        <label class="flex flex-col"
            >Notes<textarea
                class="field !min-h-10 resize-y py-1"
                rows="1"
                maxlength="2000"
                disabled={!may}
                name="notes"
                bind:value={about.notes}></textarea></label
        >
        {#if may}<p class="col-span-2">
                <button class="act-quiet" disabled={keep.isPending || !changed}>Keep this with the job</button>
            </p>{/if}
    </form>
</div>
