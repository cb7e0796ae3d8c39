<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { almanac } from '../../api/almanac';
    import Notice from '../../parts/Notice.svelte';
    import Term from '../../parts/Term.svelte';
    import { counted, day } from '../../parts/format';
    import CalibrationTable from './CalibrationTable.svelte';

    const held = createQuery(() => ({
        queryKey: ['almanac', 'forecasts'],
        queryFn: almanac.forecasts,
        refetchInterval: 300_000,
    }));
    const BASIS =
        'It is counted from those of the vendor that were superseded for as long, and said from five closings on. ' +
        'Where an end is announced, that counts. No latest start rests on an estimate.';
    const AHEAD: Record<number, string> = { 7: 'a week', 30: 'a month' };
    const then = (days: number) => AHEAD[days] ?? `${days} days`;
</script>

{#if held.isPending}<p class="text-quiet" role="status">Counting how long windows have held…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    <p class="max-w-[75ch] text-sm">
        Windows close without notice. An <Term of="estimate">estimate</Term> says how many were still open later.
        <span class="block text-quiet">{BASIS}</span>
    </p>
    <h2 class="mt-4">Open windows</h2>
    {#if held.data.open.length === 0}<p class="text-quiet">
            Nothing is estimated now: no open window was superseded, or fewer than five of a vendor’s were seen to
            close.
        </p>
    {:else}
        <div class="overflow-x-auto">
            <table class="w-full text-sm" data-open-windows>
                <thead
                    ><tr class="text-left text-quiet">
                        <th class="py-1 pr-3 font-normal">Build</th>
                        <th class="pr-3 font-normal">Superseded</th>
                        {#each held.data.open[0]?.forecast.told?.chances ?? [] as c (c.days)}<th
                                class="pr-3 font-normal">Open in {then(c.days)}</th
                            >{/each}
                        <th class="pr-3 font-normal">Half closed by</th>
                        <th class="font-normal">Rests on</th>
                    </tr></thead
                >
                <tbody>
                    {#each held.data.open as w, i (i)}{@const told = w.forecast.told}
                        {#if told !== null}<tr class="border-t border-edge align-top">
                                <td class="py-1 pr-3"
                                    ><span class="font-semibold">{w.version}</span> <span class="code">{w.build}</span>
                                    <span class="block text-quiet">{w.vendor}, {w.channel}</span></td
                                >
                                <td class="pr-3">{day(told.supersededAt)}</td>
                                {#each told.chances as c (c.days)}<td class="pr-3 {c.chance < 0.5 ? 'text-amber' : ''}"
                                        >{c.words}</td
                                    >{/each}
                                <td class="pr-3"
                                    >{told.halfClosedBy === null ? 'not seen yet' : day(told.halfClosedBy)}</td
                                >
                                <td class="text-quiet" title={told.restsOn}
                                    >{counted(told.closings, 'closing')}, {told.laterClosings} later</td
                                >
                            </tr>{/if}{/each}
                </tbody>
            </table>
        </div>
    {/if}
    <div class="mt-4 grid gap-6 @4xl:grid-cols-2">
        <section aria-labelledby="told-here">
            <h2 id="told-here">What was told here, and what happened</h2>
            {#if held.data.told.every((c) => c.told === 0)}<p class="text-sm text-quiet">
                    Nothing is judged yet. Once a day the chances of all open windows are written down; {held.data
                        .waiting === 0
                        ? 'the first are told within a day.'
                        : `${counted(held.data.waiting, 'chance')} wait for their day to come.`}
                </p>
            {:else}{#each held.data.told as c (c.days)}{#if c.told > 0}<CalibrationTable
                            calibration={c}
                            ahead={then(c.days)}
                        />{/if}{/each}{/if}
        </section>
        <section aria-labelledby="replayed">
            <h2 id="replayed">What would have been told before</h2>
            <p class="text-sm text-quiet">For every week of the almanac’s past, from no more than was known by then.</p>
            {#each held.data.replayed as c (c.days)}{#if c.told > 0}<CalibrationTable
                        calibration={c}
                        ahead={then(c.days)}
                    />{:else}<p class="text-sm">{then(c.days)} ahead: the past holds too few closings.</p>{/if}{/each}
        </section>
    </div>
{/if}
