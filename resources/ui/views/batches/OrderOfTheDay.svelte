<script lang="ts">
    import { CalendarDays, Printer } from '@lucide/svelte';
    import { orderAddress } from '../../api/batches';
    import type { Batch, Schedule } from '../../api/types';
    import { clock } from '../../parts/format';
    import Term from '../../parts/Term.svelte';
    import { times } from '../../parts/times.svelte';
    import { dayOf, names, stepName } from './words';

    let { batch, schedule }: { batch: Batch; schedule: Schedule } = $props();
    const name = $derived(names(batch));
    const turns = $derived(
        schedule.devices
            .flatMap((d) => d.steps.map((s) => ({ ...s, device: d })))
            .sort((a, b) => a.startsAt.localeCompare(b.startsAt)),
    );
    const key = (t: (typeof turns)[number]) => `${t.device.id} ${t.step} ${t.leg}`;
    const of = (technician: number) => turns.filter((t) => t.technician === technician);
    const days = (own: typeof turns) => [...new Set(own.map((t) => dayOf(t.startsAt)))];
</script>

<div class="mb-2 flex flex-wrap items-center gap-3 text-sm">
    <p>
        <Term of="order-of-the-day">Order of the day</Term>, {times.zoneName}, as it is expected now. It is made again
        as steps end early or late.
    </p>
    <button class="act-quiet ml-auto print:hidden" onclick={() => window.print()}
        ><Printer size="1.15em" aria-hidden="true" />Print</button
    >
</div>
<div class="grid items-start gap-3 @4xl:grid-cols-2 print:grid-cols-1">
    {#each batch.workshop.technicians as person, i (person)}{@const own = of(i + 1)}
        <section class="panel break-inside-avoid-page" aria-label="Order of {person}" data-order={i + 1}>
            <div class="mb-1 flex flex-wrap items-center gap-3">
                <h2>{person}</h2>
                <a class="act-quiet ml-auto !min-h-9 print:hidden" href={orderAddress(batch, i + 1)} download
                    ><CalendarDays size="1.1em" aria-hidden="true" />Calendar file</a
                >
            </div>
            {#if own.length === 0}<p class="text-sm text-quiet">Nothing to do in this batch.</p>{/if}
            {#each days(own) as day (day)}
                <h3 class="mt-2 text-sm font-semibold">{times.weekday(`${day}T12:00:00Z`)} {times.plainDay(day)}</h3>
                <table class="w-full text-sm">
                    <thead class="sr-only"
                        ><tr><th>From</th><th>Until</th><th>What</th><th>Device</th><th>Port</th></tr></thead
                    >
                    <tbody>
                        {#each own.filter((t) => dayOf(t.startsAt) === day) as t (key(t))}
                            <tr class="border-t border-edge">
                                <td class="py-1 pr-1 tabular-nums">{clock(t.startsAt)}</td>
                                <td class="pr-3 text-quiet tabular-nums">{clock(t.endsAt)}</td>
                                <td class="pr-3">{stepName(t.step)}</td>
                                <td class="pr-3"
                                    ><span class="font-mono">{name(t.device.id)}</span>
                                    <span class="text-quiet">{t.device.label}</span></td
                                >
                                <td class="text-right"
                                    >{t.device.port === null ? '' : `port ${batch.portNames[t.device.port - 1]}`}</td
                                >
                            </tr>{/each}
                    </tbody>
                </table>
            {/each}
        </section>{/each}
</div>
