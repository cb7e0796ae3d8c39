<script lang="ts">
    import type { Job } from '../../api/types';
    import Copied from '../../parts/Copied.svelte';
    import { bytes, version } from '../../parts/format';
    import Term from '../../parts/Term.svelte';

    /** Which device this is, as a sentence that can be checked against the one in the hand. */
    let { job }: { job: Job } = $props();
    const device = $derived(job.device);
    const used = $derived(
        device?.capacityBytes == null ? null : [device.capacityBytes - (device.freeBytes ?? 0), device.capacityBytes],
    );
</script>

<div>
    <h2 id="who">Who it is</h2>
    {#if device === null}
        <p class="mt-1 text-quiet">Told as soon as the device has said yes to this computer.</p>
        <p class="mt-2">Serial <Copied text={job.serial} what="Serial" /></p>
    {:else}
        <p class="mt-1 text-2xl leading-snug">
            <strong>{job.variant ?? device.modelName}</strong> on {version(device.version)}
        </p>
        <p class="mt-2 flex flex-wrap gap-x-6 gap-y-1">
            <span>Serial <Copied text={device.serial} what="Serial" /></span>
            {#if job.imei !== null}<span>IMEI <Copied text={job.imei} what="IMEI" /></span>{/if}
            <span
                ><Term of="hardware-id">Hardware id</Term>
                {#if device.hardwareId === null}<strong class="text-amber">not known yet</strong>{:else}<Copied
                        text={device.hardwareId}
                        what="Hardware id"
                    />{/if}</span
            >
            <span><Term of="build">Build</Term> <Copied text={device.build} what="Build" /></span>
        </p>
        <p class="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-sm text-quiet">
            {#if used !== null}<span>{used.map((n) => bytes(n)).join(' used of ')}</span>{/if}
            <span
                ><Term of="rollback-counter" />
                {device.rollbackCounter ?? 'not known'}</span
            >
            {#if device.accessories.length > 0}<span
                    >with {device.accessories
                        .map((a) => `${a.type.replaceAll('-', ' ')} ${version(a.osVersion)}`)
                        .join(', ')}</span
                >{/if}
            {#if device.apps.length > 0}<span
                    >apps: {device.apps.map((a) => `${a.name} (from ${version(a.minimumOs)})`).join(', ')}</span
                >{/if}
        </p>
    {/if}
</div>
