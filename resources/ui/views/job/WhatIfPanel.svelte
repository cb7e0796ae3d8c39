<script lang="ts">
    import type { Job } from '../../api/types';
    import { SYNCING_KINDS } from '../../api/words';
    import { kindName } from '../../parts/format';
    import DayField from '../../parts/DayField.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { times } from '../../parts/times.svelte';
    import type { WhatIf } from './whatif.svelte';

    let { what, job }: { what: WhatIf; job: Job } = $props();

    const kinds = $derived((job.device?.kinds ?? []).filter((k) => SYNCING_KINDS.includes(k.kind)));
    const syncs = (kind: string, really: boolean) => what.sync[kind] ?? really;
    const changed = () => what.changed();
</script>

<section class="panel border-2 border-dashed border-amber-mark py-3" aria-labelledby="what-if">
    <div class="flex items-baseline gap-3">
        <h2 id="what-if">What if…</h2>
        <p class="text-sm text-quiet">Only looked at: nothing of this enters the job.</p>
        <button class="act-quiet ml-auto !min-h-8 text-sm" onclick={() => what.clear()}>Back to what is</button>
    </div>
    <div class="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2 text-sm">
        <label class="flex flex-col gap-1"
            >The new backup is<select class="field !min-h-9" bind:value={what.fields.backup} onchange={changed}
                ><option value="">as planned</option><option value="plain">plain</option><option value="encrypted"
                    >encrypted</option
                ><option value="none">not taken</option></select
            ></label
        >
        <label class="flex flex-col gap-1"
            >The line carries, MB/s<input
                class="field !min-h-9 w-28 font-mono"
                type="number"
                min="0.01"
                step="any"
                placeholder="as usual"
                bind:value={what.fields.megabytes}
                oninput={changed}
            /></label
        >
        <fieldset class="flex items-end gap-1">
            <legend class="mb-1">The work begins ({times.zoneName})</legend>
            <DayField
                name="startsOn"
                label="Day on which the work begins"
                bind:value={what.fields.startsOn}
                onchange={changed}
            />
            <input
                class="field w-20 font-mono"
                name="startsTime"
                aria-label="Hour and minute at which the work begins"
                placeholder="08:30"
                pattern="([01]?\d|2[0-3]):[0-5]\d"
                bind:value={what.fields.startsTime}
                oninput={changed}
            />
        </fieldset>
        <fieldset class="flex items-end gap-1">
            <legend class="mb-1">There is an older backup of</legend>
            <DayField
                name="earlierOn"
                label="Day of the older backup"
                bind:value={what.fields.earlierOn}
                onchange={changed}
            />
            <input
                class="field !min-h-9 w-24 font-mono"
                aria-label="Version that it was made on"
                placeholder="made on"
                bind:value={what.fields.earlierMadeOn}
                oninput={changed}
            />
            <select
                class="field !min-h-9"
                aria-label="How the older backup was taken"
                bind:value={what.fields.earlierBackup}
                onchange={changed}
                ><option value="encrypted">encrypted</option><option value="plain">plain</option></select
            >
        </fieldset>
    </div>
    {#if kinds.length > 0}
        <fieldset class="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm">
            <legend class="mb-1">Kinds that sync continuously</legend>
            {#each kinds as k (k.kind)}
                {@const really = k.syncedAt !== null}
                <label
                    class="flex items-center gap-1.5 {what.sync[k.kind] === undefined
                        ? ''
                        : 'font-semibold text-amber'}"
                    ><input
                        type="checkbox"
                        class="h-4 w-4 accent-[var(--jade)]"
                        checked={syncs(k.kind, really)}
                        onchange={(e) => what.switch(k.kind, e.currentTarget.checked, really)}
                    />{kindName(k.kind)}</label
                >
            {/each}
        </fieldset>
    {/if}
    {#if what.problem !== null}<div class="mt-2"><Notice tone="amber">{what.problem}</Notice></div>{/if}
</section>
