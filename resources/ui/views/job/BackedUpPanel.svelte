<script lang="ts">
    import { link } from 'svelte-spa-router';
    import type { Job } from '../../api/types';
    import { BAG_STATE } from '../../api/words';
    import { bagWords } from '../../parts/bag';
    import Notice from '../../parts/Notice.svelte';

    let { job }: { job: Job } = $props();
    const bag = $derived(job.bags.at(-1));
    const sealed = $derived(job.state === 'backed-up' && bag !== undefined);
</script>

{#if sealed && bag !== undefined}
    <Notice tone="jade">
        <p class="text-lg font-semibold">
            The backup is {BAG_STATE[bag.state]}: {bag.label}
        </p>
        <p class="text-sm">
            {bagWords(bag)}. Nothing was changed on the device.
        </p>
    </Notice>
    <p class="mt-3">
        <a class="act-quiet" href="/shelf/{encodeURIComponent(bag.id)}" use:link>Find it on the Shelf</a>
    </p>
{:else if job.state === 'open'}
    <Notice>The device can be unplugged and handed over when its backup is sealed. The job then ends by itself.</Notice>
{:else}
    <Notice tone="amber">This job ended without a whole backup. Take the device in again to back it up.</Notice>
{/if}
