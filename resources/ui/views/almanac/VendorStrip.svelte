<script lang="ts">
    import { FileWarning, ShieldCheck, TriangleAlert } from '@lucide/svelte';
    import { buildsAddress } from '../../api/almanac';
    import type { HeldVendor } from '../../api/types';
    import { dayAndClock } from '../../parts/format';

    let {
        vendor,
        mayAct,
        onwithdraw,
    }: { vendor: HeldVendor; mayAct: boolean; onwithdraw: (catalogue: number) => void } = $props();
    const held = $derived(vendor.held);
    const lastAnswer = $derived(vendor.refreshedAt === null ? 'none yet' : dayAndClock(vendor.refreshedAt));
</script>

<article class="panel py-3 {vendor.problem !== null || held?.stale ? 'border-amber-mark' : ''}" data-vendor={vendor.id}>
    <p class="flex items-center gap-2 font-semibold">
        {#if vendor.problem !== null || held?.stale}<TriangleAlert
                size="1.15em"
                class="text-amber"
                aria-hidden="true"
            />{:else if held?.vouched}<ShieldCheck
                size="1.15em"
                class="text-jade"
                aria-hidden="true"
            />{:else}<FileWarning size="1.15em" class="text-amber" aria-hidden="true" />{/if}
        {vendor.name}
        {#if held !== null}<a
                class="ml-auto text-sm font-normal underline underline-offset-4"
                href={buildsAddress(vendor.id)}
                download>Builds as CSV</a
            >{/if}
    </p>
    {#if held === null}
        <p class="text-sm text-quiet">No catalogue is held yet. Refresh, or take one in from a file.</p>
    {:else}
        <p class="text-sm">
            {held.vouched ? 'Signed' : 'Not vouched for'}, issued {dayAndClock(held.issuedAt)}, {held.stale
                ? 'stale since'
                : 'good until'}
            {dayAndClock(held.freshUntil)}; {held.models} models, {held.builds} builds.
        </p>
        {#if held.fileName !== null}
            <p class="text-sm text-amber">
                From the file {held.fileName}, taken in by {held.takenBy}. {#if mayAct}<button
                        class="underline underline-offset-4"
                        onclick={() => onwithdraw(held.id)}>Take it back</button
                    >{/if}
            </p>
        {/if}
    {/if}
    {#if vendor.problem !== null}<p class="mt-1 rounded-md bg-amber-wash p-2 text-sm text-amber" role="status">
            {vendor.problem.detail} <span class="code !text-inherit">{vendor.problem.reason}</span>
        </p>{/if}
    <p class="text-sm text-quiet">
        {vendor.address === null ? 'Files only' : `Asked every ${vendor.refreshMinutes} min; last answer ${lastAnswer}`}
    </p>
</article>
