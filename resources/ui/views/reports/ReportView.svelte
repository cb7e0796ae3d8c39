<script lang="ts">
    import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { reportCsvAddress, reports } from '../../api/reports';
    import type { Kind } from '../../api/types';
    import DayField from '../../parts/DayField.svelte';
    import { counted, instant, kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { keepInAddress, queryOf } from '../../parts/query';
    import { times } from '../../parts/times.svelte';
    import { session } from '../../shell/session.svelte';
    import BytesChart from './BytesChart.svelte';
    import OutcomeBars from './OutcomeBars.svelte';
    import TimesChart from './TimesChart.svelte';

    const DAY = 86_400_000;
    const today = times.isoDay(new Date());
    /** The month that a day is in: its first and its last day. */
    const month = (day: string): [string, string] => {
        const [year, of] = day.split('-').map(Number) as [number, number];
        const last = new Date(Date.UTC(year, of, 0)).getUTCDate();
        return [`${day.slice(0, 7)}-01`, `${day.slice(0, 7)}-${String(last).padStart(2, '0')}`];
    };
    let from = $state(queryOf('from') || month(today)[0]);
    let until = $state(queryOf('until') || month(today)[1]);
    $effect(() => keepInAddress({ from, until }));
    const next = (day: string) => new Date(Date.parse(`${day}T12:00:00Z`) + DAY).toISOString().slice(0, 10);
    const span = $derived({ from: instant(`${from}T00:00`), until: instant(`${next(until)}T00:00`) });
    const whole = $derived(from !== '' && until !== '' && from <= until);
    const held = createQuery(() => ({
        queryKey: ['report', span],
        queryFn: () => reports.show(span),
        enabled: session.leads && whole,
        placeholderData: keepPreviousData,
    }));
    const step = (months: number) => {
        const [year, of] = from.split('-').map(Number) as [number, number];
        const at = new Date(Date.UTC(year, of - 1 + months, 15)).toISOString().slice(0, 10);
        [from, until] = month(at);
    };
    const percent = (share: number | null) => (share === null ? '' : `${Math.round(share * 100)} %`);
    const r = $derived(held.data);
</script>

<svelte:head><title>Reports · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-end gap-4">
    <h1>Reports</h1>
    <p class="text-quiet">{times.plainDay(from)} to {times.plainDay(until)}, {times.zoneName}</p>
    {#if session.leads}<div class="ml-auto flex flex-wrap items-end gap-2 text-sm print:hidden">
            <button class="act-quiet" onclick={() => step(-1)}>Month before</button>
            <button class="act-quiet" onclick={() => step(1)}>Month after</button>
            <label class="flex flex-col">From<DayField name="from" label="From" required bind:value={from} /></label>
            <label class="flex flex-col">Until<DayField name="until" label="Until" required bind:value={until} /></label
            >
            <a class="act-quiet" href={reportCsvAddress(span)} download="jobs.csv">As CSV</a>
            <button class="act" onclick={() => window.print()}>Print</button>
        </div>{/if}
</div>
{#if !session.leads}<Notice>Reports are for leads.</Notice>
{:else if !whole}<Notice tone="amber">The last day comes after the first.</Notice>
{:else if held.isPending}<p class="text-quiet" role="status">Counting…</p>
{:else if r === undefined}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    <p class="mb-3 text-lg" data-jobs={r.jobs}>
        <strong>{counted(r.jobs, 'job')} ended</strong>{r.byOutcome.length === 0
            ? ' in these days. Choose others above.'
            : `: ${r.byOutcome.map((o) => `${o.jobs} ${o.label}`).join('; ')}.`}
    </p>
    <div class="gap-4 @4xl:columns-2 print:columns-1 [&>*]:mb-4">
        <OutcomeBars rows={r.byModel} title="Jobs by model" />
        <OutcomeBars rows={r.byWay} title="Jobs by route" />
        <TimesChart report={r} />
        <section class="panel break-inside-avoid" aria-label="Losses by kind">
            <h2 class="mb-2">Losses by kind</h2>
            {#if r.losses.length === 0}<p class="text-sm text-quiet">Nothing was missing at the end.</p>
            {:else}
                <table class="w-full text-sm">
                    <tbody
                        >{#each r.losses as l (l.kind)}<tr class="border-t border-edge first:border-0"
                                ><th scope="row" class="py-1 text-left font-normal first-letter:uppercase"
                                    >{kindName(l.kind as Kind)}</th
                                ><td class="text-right tabular-nums">{counted(l.items, 'item')}</td><td
                                    class="pl-4 text-right text-quiet tabular-nums">in {counted(l.jobs, 'job')}</td
                                ></tr
                            >{/each}</tbody
                    >
                </table>
            {/if}
        </section>
        <section class="panel break-inside-avoid" aria-label="Lowered returns that worked">
            <h2 class="mb-2">Lowered returns that worked</h2>
            {#if r.lowered.length === 0}<p class="text-sm text-quiet">No lowered copy was put back.</p>
            {:else}
                <table class="w-full text-sm">
                    <tbody
                        >{#each r.lowered as l (l.kind)}<tr class="border-t border-edge first:border-0"
                                ><th scope="row" class="py-1 text-left font-normal first-letter:uppercase"
                                    >{kindName(l.kind as Kind)}</th
                                ><td class="text-right tabular-nums">{l.successes} of {l.trials}</td><td
                                    class="w-40 pl-4"
                                    ><svg viewBox="0 0 100 10" class="h-3 w-full" aria-hidden="true"
                                        ><line x1="0" x2="100" y1="5" y2="5" class="stroke-edge" /><line
                                            x1={(l.low ?? 0) * 100}
                                            x2={(l.high ?? 0) * 100}
                                            y1="5"
                                            y2="5"
                                            class="stroke-jade"
                                            stroke-width="3"
                                        /><circle
                                            cx={(l.successes / l.trials) * 100}
                                            cy="5"
                                            r="4"
                                            class="fill-jade"
                                        /></svg
                                    ></td
                                ><td class="pl-2 text-right text-quiet tabular-nums"
                                    >{percent(l.low)} to {percent(l.high)}</td
                                ></tr
                            >{/each}</tbody
                    >
                </table>
                <p class="mt-1 text-xs text-quiet">
                    The span is where the true share lies with 95 % (Wilson’s interval).
                </p>
            {/if}
        </section>
        <BytesChart days={r.bytes} />
    </div>
{/if}
