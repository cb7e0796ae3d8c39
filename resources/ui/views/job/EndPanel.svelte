<script lang="ts">
    import { FileText } from '@lucide/svelte';
    import { push } from 'svelte-spa-router';
    import { handover } from '../../api/handover';
    import type { Job, Kind } from '../../api/types';
    import { kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';

    let { job, losses, mayAct }: { job: Job; losses: string[]; mayAct: boolean } = $props();
    const end = jobAct(
        () => handover.end(job.id, accepted),
        () => void push('/'),
    );
    const ready = $derived(job.may['hand-over'].allowed);
    const unexpected = $derived(job.verdict.unnamedKinds as Kind[]);
    let accepted = $state<Kind[]>([]);
    const open = $derived(unexpected.filter((k) => !accepted.includes(k)));
    const toggle = (kind: Kind) =>
        (accepted = accepted.includes(kind) ? accepted.filter((k) => k !== kind) : [...accepted, kind]);
</script>

<section class="panel py-3" aria-labelledby="end">
    <h2 id="end" class="mb-1">Hand over</h2>
    <p class="text-sm">
        {losses.length === 0 ? 'Without a loss.' : 'Ends with named losses: '}{#if losses.length > 0}<span
                class="font-semibold text-loss">{losses.join(', ')}.</span
            >{/if}
    </p>
    {#if ready && mayAct && unexpected.length > 0}
        <fieldset class="mt-2 rounded-md bg-loss-wash p-2 text-sm text-loss">
            <legend class="sr-only">Losses that were not named before</legend>
            <p>This was not named before. Put it back, or accept it by name, with the owner:</p>
            {#each unexpected as k (k)}<label class="flex items-center gap-2"
                    ><input
                        type="checkbox"
                        class="h-4 w-4"
                        checked={accepted.includes(k)}
                        onchange={() => toggle(k)}
                    />{kindName(k)} is not all there</label
                >{/each}
        </fieldset>
    {/if}
    <div class="mt-2 flex flex-wrap gap-2">
        <a class="act-quiet" href="#/jobs/{job.id}/sheet"><FileText size={17} aria-hidden="true" />Hand-over sheet</a>
        {#if ready && mayAct}<button
                class="act flex-1"
                disabled={end.isPending || open.length > 0}
                onclick={() => end.mutate()}>Hand over and end the job</button
            >{/if}
    </div>
</section>
