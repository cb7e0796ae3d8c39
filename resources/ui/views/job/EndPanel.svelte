<script lang="ts">
    import { FileText } from '@lucide/svelte';
    import { push } from 'svelte-spa-router';
    import { handover } from '../../api/handover';
    import type { AftercarePoint, Job, Kind } from '../../api/types';
    import { kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';

    /** `points` are those of the aftercare that are still to be done: ending with them asks first. */
    let {
        job,
        losses,
        points,
        mayAct,
    }: { job: Job; losses: string[]; points: AftercarePoint[] | null; mayAct: boolean } = $props();
    let asked = $state(false);
    const openWords = $derived(
        points?.length === 1 ? 'One point of the aftercare is' : `${points?.length ?? 0} points of the aftercare are`,
    );
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
        {#if ready && mayAct && !asked}<button
                class="act flex-1"
                disabled={end.isPending || points === null || open.length > 0}
                onclick={() => (points !== null && points.length > 0 ? (asked = true) : end.mutate())}
                >Hand over and end the job</button
            >{/if}
    </div>
    {#if asked && points !== null && ready && mayAct}<div
            class="mt-2 rounded-md bg-amber-wash p-3 text-amber"
            role="alertdialog"
            aria-label="Open points"
        >
            <p class="font-semibold">
                {openWords} still to be done.
            </p>
            <ul class="list-disc pl-5 text-sm">
                {#each points as p (p.code)}<li>{p.words}</li>{/each}
            </ul>
            <p class="mt-1 text-sm">They stand on the owner’s sheet, and can be ticked for 30 days.</p>
            <div class="mt-2 flex flex-wrap gap-2">
                <button class="act-quiet !text-ink" onclick={() => (asked = false)}>Not yet</button>
                <button class="act flex-1" disabled={end.isPending || open.length > 0} onclick={() => end.mutate()}
                    >Hand over with them open</button
                >
            </div>
        </div>{/if}
</section>
