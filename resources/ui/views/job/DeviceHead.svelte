<script lang="ts">
    import { Wifi } from '@lucide/svelte';
    import type { JobSummary } from '../../api/types';
    import Copied from '../../parts/Copied.svelte';
    import { version } from '../../parts/format';

    /** Which device it is, so that it is found on the bench at arm's length: port and label stand large. */
    let { job }: { job: JobSummary } = $props();
    // while it restarts it is not seen, and stands where it stood
    let last = $state<JobSummary['place']>(null);
    $effect(() => {
        if (job.place !== null) last = job.place;
    });
    const place = $derived(job.place ?? last);
</script>

<div class="flex min-w-0 items-center gap-3" data-device-head>
    <span
        class={[
            'grid min-h-14 min-w-14 shrink-0 place-items-center rounded-lg px-2 font-mono text-3xl font-semibold',
            job.place === null ? 'border-2 border-dashed border-quiet text-quiet' : 'bg-jade text-on-jade',
        ]}
        title={place === null
            ? 'Not plugged in'
            : `${place.bench}, ${place.byAir ? 'near by air' : `port ${place.port}`}`}
        data-port={place?.port ?? ''}
        >{#if place?.byAir}<Wifi size="0.9em" aria-hidden="true" /><span class="sr-only">near by air</span
            >{:else if place === null}–<span class="sr-only">not plugged in</span>{:else}<span class="sr-only"
                >port</span
            >{place.port}{/if}</span
    >
    <div class="min-w-0 leading-tight">
        <h1 class="flex flex-wrap items-baseline gap-x-3">
            <span>{job.variant ?? job.modelName ?? 'Device'}</span>
            <span class="text-base font-normal"><Copied text={job.serial} what="Serial" /></span>
        </h1>
        <p class="flex flex-wrap gap-x-3 text-quiet">
            {#if place?.label}<strong class="text-ink">{place.label}</strong>{/if}
            {#if job.place === null && job.state === 'open'}<span
                    >{place === null ? 'not plugged in' : 'not seen just now'}</span
                >{/if}
            {#if job.fromVersion !== null}<span
                    >{version(job.fromVersion)}{#if job.toVersion !== null}&nbsp;→ <strong class="text-ink"
                            >{version(job.toVersion)}</strong
                        >{/if}</span
                >{/if}
            {#if job.holder !== ''}<span>{job.holder}</span>{/if}
        </p>
    </div>
</div>
