<script lang="ts">
    import type { Job, Return } from '../../api/types';
    import { kindName, version } from '../../parts/format';
    import Evidence from './Evidence.svelte';
    import LookFirst from './LookFirst.svelte';

    let { job, told }: { job: Job; told: Return } = $props();
    const way = $derived(told.chosen);
    const chosen = $derived(
        way === null || way.backup === null ? undefined : told.choices.find((c) => c.backup === way.backup),
    );
    const broughtIn = (kinds: string[]) =>
        kinds.length === 0 ? '' : `, and these are brought in: ${kinds.map(kindName).join(', ')}`;
    const what = $derived(
        way === null
            ? 'Not chosen yet.'
            : way.mode === 'keep-as-new'
              ? `The device is kept as it was set up new${broughtIn(way.kinds)}.`
              : way.mode === 'put-nothing-back'
                ? 'No backup is put back.'
                : way.mode === 'from-cloud'
                  ? 'The owner’s cloud backup, which the device fetches itself.'
                  : way.mode === 'never-left'
                    ? 'The data never leaves the device.'
                    : way.backup === 'planned'
                      ? 'The backup that this job takes.'
                      : (chosen?.label ?? way.backup),
    );
</script>

<section class="panel" aria-labelledby="copy">
    <h2 id="copy" class="mb-1">What is put back</h2>
    <p>{what}</p>
    {#if way !== null && way.by !== null}<p class="text-sm text-quiet">Chosen by {way.by}.</p>{/if}
    {#if way?.mode === 'put-back'}
        {#if told.difference !== null}
            <h3 class="mt-3 text-sm text-quiet">
                The lowered copy differs from the sealed original in what it declares:
            </h3>
            <pre
                class="my-1 overflow-x-auto rounded-md bg-sunken p-3 font-mono text-sm"
                data-difference>{#each told.difference.removed as line (line)}<span class="block text-quiet"
                        ><span aria-hidden="true">− </span><span class="sr-only">was </span><s>{line}</s></span
                    >{/each}{#each told.difference.added as line (line)}<span class="block font-semibold"
                        ><span aria-hidden="true">+ </span><span class="sr-only">is </span>{line}</span
                    >{/each}</pre>
            <p class="text-sm text-quiet">
                {#if told.difference.samePayload}
                    Its payload manifest is the same, byte for byte, and the original is untouched.
                {:else}
                    Its payload manifest is not the same: put nothing back from it, and look at the bag on the Shelf.
                {/if}
                Beside that it tells only its own name and where it comes from ({told.difference.own
                    .map((o) => o.toLowerCase().replace('-', ' '))
                    .join(', ')}).
            </p>
        {:else if chosen?.base?.treatment === 'lowered'}
            <p class="mt-2 text-sm text-quiet">
                When the device runs it, a copy is made that declares {version(chosen.base.declaredVersion ?? '')}. The
                copy shares every payload byte with the sealed original, which stays as it is.
            </p>
        {:else if chosen}<p class="mt-2 text-sm text-quiet">
                It is from {version(chosen.madeOn ?? '')}, and the device takes it as it is.
            </p>{/if}
    {/if}
    {#if job.device !== null && chosen?.base?.treatment === 'lowered'}<Evidence
            osLine={job.device.osLine}
            base={chosen.base}
        />{/if}
    <LookFirst {job} />
</section>
