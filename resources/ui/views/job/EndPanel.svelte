<script lang="ts">
    import { FileText } from '@lucide/svelte';
    import { push } from 'svelte-spa-router';
    import { handover } from '../../api/handover';
    import type { AftercarePoint, Job, Kind } from '../../api/types';
    import { kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';
    import { nextAct } from './nextact.svelte';
    import Ask from '../../parts/Ask.svelte';

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
    const handOver = () => (points !== null && points.length > 0 ? (asked = true) : end.mutate());
    $effect(() =>
        nextAct.offer(
            'hand-over',
            ready && mayAct
                ? {
                      label: 'Hand over and end the job',
                      run: handOver,
                      disabled: end.isPending || points === null || open.length > 0,
                  }
                : null,
        ),
    );
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
        <a class="act-quiet" href="#/jobs/{job.id}/sheet"><FileText size="1.1em" aria-hidden="true" />Hand-over sheet</a
        >
    </div>
</section>
<Ask
    open={asked && ready && mayAct}
    title="{openWords} still to be done"
    yes="Hand over with them open"
    no="Not yet"
    busy={end.isPending || open.length > 0}
    onyes={() => end.mutate()}
    onno={() => (asked = false)}
    ><span class="block"
        >{#each points ?? [] as p (p.code)}<span class="block border-t border-edge py-1">{p.words}</span>{/each}</span
    >They stand on the owner’s sheet, and can be ticked for 30 days.</Ask
>
