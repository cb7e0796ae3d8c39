<script lang="ts">
    import { returns } from '../../api/returns';
    import type { Job, Return } from '../../api/types';
    import { kindName, version } from '../../parts/format';
    import Evidence from './Evidence.svelte';
    import { jobAct } from './job.svelte';

    let { job, told, mayAct }: { job: Job; told: Return; mayAct: boolean } = $props();
    const chosen = $derived(told.choices.find((c) => c.backup === told.chosen.backup));
    const hold = jobAct(() => returns.choose(job.id, 'hold', null));
    const release = jobAct(() => returns.choose(job.id, 'whole', told.chosen.backup));
    const what = $derived(
        told.chosen.mode === 'hold' ? 'Held: nothing is put back until somebody chooses.'
        : told.chosen.mode === 'as-new' ? `The device is kept as it was set up new${told.chosen.kinds.length === 0 ? '.' : `, and these are brought in: ${told.chosen.kinds.map(kindName).join(', ')}.`}`
        : told.chosen.backup === null ? 'No backup is put back.'
        : told.chosen.backup === 'cloud' ? 'The owner’s cloud backup, which the device fetches itself.'
        : (chosen?.label ?? told.chosen.backup),
    );
</script>

<section class="panel" aria-labelledby="copy">
    <h2 id="copy" class="mb-1">What is put back</h2>
    <p>{what}</p>
    {#if told.chosen.by !== null}<p class="text-sm text-quiet">Chosen by {told.chosen.by}.</p>{/if}
    {#if told.chosen.mode === 'whole' && told.chosen.backup !== null && told.chosen.backup !== 'cloud'}
        {#if told.difference !== null}
            <h3 class="mt-3 text-sm text-quiet">The lowered copy differs from the sealed original in what it declares:</h3>
            <pre class="my-1 overflow-x-auto rounded-md bg-sunken p-3 font-mono text-sm" data-difference>{#each told.difference.removed as line (line)}<span class="block text-quiet"><span aria-hidden="true">− </span><span class="sr-only">was </span><s>{line}</s></span>{/each}{#each told.difference.added as line (line)}<span class="block font-semibold"><span aria-hidden="true">+ </span><span class="sr-only">is </span>{line}</span>{/each}</pre>
            <p class="text-sm text-quiet">{told.difference.samePayload ? 'Its payload manifest is the same, byte for byte, and the original is untouched.' : 'Its payload manifest is not the same: put nothing back from it, and look at the bag on the Shelf.'} Beside that it tells only its own name and where it comes from ({told.difference.own.map((o) => o.toLowerCase().replace('-', ' ')).join(', ')}).</p>
        {:else if chosen?.base?.treatment === 'lowered'}
            <p class="mt-2 text-sm text-quiet">A copy that declares {version(chosen.base.declaredVersion ?? '')} is made when the device runs it. It shares every payload byte with the sealed original, which stays as it is.</p>
        {:else if chosen}<p class="mt-2 text-sm text-quiet">It is from {version(chosen.madeOn ?? '')}, and the device takes it as it is.</p>{/if}
    {/if}
    {#if job.device !== null && chosen?.base?.treatment === 'lowered'}<Evidence osLine={job.device.osLine} base={chosen.base} />{/if}
    {#if mayAct && told.chosen.mode === 'hold' && !told.mayChoose && job.state === 'open'}<p class="mt-3 border-t border-edge pt-3"><button class="act-quiet" disabled={release.isPending} onclick={() => release.mutate()}>Let it go by itself again</button></p>{/if}
    {#if mayAct && told.mayHold && job.state === 'open'}<p class="mt-3 border-t border-edge pt-3 text-sm"><button class="act-quiet" disabled={hold.isPending} onclick={() => hold.mutate()}>Hold the return</button> <span class="text-quiet">to look at the device as new first, or to choose otherwise.</span></p>{/if}
</section>
