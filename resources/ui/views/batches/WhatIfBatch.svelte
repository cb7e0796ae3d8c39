<script lang="ts">
    import { createMutation } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { batches } from '../../api/batches';
    import type { Batch, BatchWhatIf } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { inHundred, moment } from './words';

    let { batch }: { batch: Batch } = $props();
    let ports = $state(untrack(() => batch.workshop.ports));
    let technicians = $state(untrack(() => batch.workshop.technicians.length));
    let later = $state(0);
    const shifted = (time: string | null) =>
        time === null ? null : new Date(Date.parse(time) + later * 3_600_000).toISOString().replace(/\.\d+Z$/, 'Z');
    const what = createMutation(() => ({
        mutationFn: () =>
            batches.whatIf(batch.id, { ports, technicians, startsAt: null, deadline: shifted(batch.deadline) }),
    }));
    const late = (w: BatchWhatIf) => (w.late > 0 ? `, ${w.late} late` : '');
    const chance = (w: BatchWhatIf) =>
        w.deadline === null
            ? ''
            : `${inHundred(w.chance)} by ${moment(w.deadline)}, now ${inHundred(batch.chance ?? 0)}; `;
    const told = (w: BatchWhatIf) => `${chance(w)}done between ${moment(w.from)} and ${moment(w.until)}${late(w)}`;
    const same = $derived(
        ports === batch.workshop.ports && technicians === batch.workshop.technicians.length && later === 0,
    );
</script>

<section class="panel py-3" aria-labelledby="what-if">
    <h2 id="what-if">What if</h2>
    <form
        class="flex flex-wrap items-end gap-2 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            what.mutate();
        }}
    >
        <label class="flex flex-col"
            >Ports<input
                class="field w-20"
                type="number"
                min="1"
                max="200"
                name="what-ports"
                bind:value={ports}
            /></label
        >
        <label class="flex flex-col"
            >Technicians<input
                class="field w-24"
                type="number"
                min="1"
                max="50"
                name="what-technicians"
                bind:value={technicians}
            /></label
        >
        {#if batch.deadline !== null}<label class="flex flex-col"
                >Hours later<input
                    class="field w-24"
                    type="number"
                    min="-72"
                    max="240"
                    name="what-later"
                    bind:value={later}
                /></label
            >{/if}
        <button class="act-quiet" disabled={what.isPending || same}
            >{what.isPending ? 'Working it out…' : 'Look'}</button
        >
    </form>
    <div class="mt-2 text-sm" aria-live="polite" data-what-if-answer>
        {#if what.isError}<Notice tone="amber">{what.error.message}</Notice>
        {:else if what.data}<p>
                With {what.data.ports} ports and {what.data.technicians} technicians: {told(what.data)}.
            </p>
        {:else}<p class="text-quiet">Nothing of it is kept.</p>{/if}
    </div>
</section>
