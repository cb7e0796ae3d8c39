<script lang="ts">
    import type { Job } from '../../api/types';
    import { bytes, counted, dayAndClock, kindName } from '../../parts/format';

    /** What the device holds: its kinds by weight, so that what matters most is seen first. */
    let { device }: { device: Job['device'] } = $props();
    const kinds = $derived([...(device?.kinds ?? [])].sort((a, b) => b.bytes - a.bytes));
    const most = $derived(Math.max(1, ...kinds.map((k) => k.bytes)));
    const items = $derived(kinds.reduce((n, k) => n + k.items, 0));
    const weight = $derived(kinds.reduce((n, k) => n + k.bytes, 0));
</script>

<section class="panel" aria-labelledby="kinds">
    <h2 id="kinds" class="mb-1">
        What the device holds{kinds.length > 0 ? `: ${counted(items, 'item')}, ${bytes(weight)}` : ''}
    </h2>
    {#if device === null}
        <p class="text-quiet">Shown as soon as the device has said yes to this computer.</p>
    {:else}
        <ul class="grid gap-x-10 text-sm @6xl:grid-cols-2">
            {#each kinds as k (k.kind)}<li
                    class="grid grid-cols-[8rem_1fr_4.5rem_4.5rem] items-center gap-3 border-t border-edge py-1"
                    data-holds={k.kind}
                >
                    <span>{kindName(k.kind)}</span>
                    <span
                        ><span
                            class="block h-2 rounded-r-full bg-jade"
                            style:width="{Math.max(0.6, (k.bytes / most) * 100)}%"
                        ></span><span class="text-xs text-quiet"
                            >{k.lastChangedAt === null
                                ? 'age not told'
                                : `changed ${dayAndClock(k.lastChangedAt)}`}{k.syncedAt === null
                                ? ''
                                : `, synced ${dayAndClock(k.syncedAt)}`}</span
                        ></span
                    >
                    <span class="text-right">{k.items}</span><span class="text-right text-quiet">{bytes(k.bytes)}</span>
                </li>{/each}
        </ul>
    {/if}
</section>
