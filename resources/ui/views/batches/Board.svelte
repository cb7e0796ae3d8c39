<script lang="ts">
    import { scaleTime } from 'd3-scale';
    import type { Batch, Schedule } from '../../api/types';
    import { clock, minutes, tickWords } from '../../parts/format';
    import { absences } from './absences';
    import { between, names, moment, stepName } from './words';

    let { batch, schedule }: { batch: Batch; schedule: Schedule } = $props();
    type Device = Schedule['devices'][number];
    const name = $derived(names(batch));
    const at = (time: string) => Date.parse(time);
    let width = $state(700);
    let chosen = $state<string | null>(null);
    let now = $state(Date.now());
    $effect(() => {
        const timer = setInterval(() => (now = Date.now()), 20_000);
        return () => clearInterval(timer);
    });
    const from = $derived(
        Math.min(at(schedule.startsAt), now, ...batch.jobs.flatMap((j) => j.past.map((p) => at(p.startedAt ?? '')))),
    );
    const last = $derived(
        Math.max(
            at(schedule.finish.until),
            at(schedule.finishesAt),
            schedule.deadline === null ? 0 : at(schedule.deadline),
            from + 1_800_000,
        ),
    );
    const x = $derived(
        scaleTime()
            .domain([from, last + (last - from) * 0.03])
            .range([0, 100]),
    );
    const span = (a: string, b: string) => ({ left: x(at(a)), width: Math.max(0.15, x(at(b)) - x(at(a))) });
    const ports = $derived(Array.from({ length: batch.workshop.ports }, (_, i) => i + 1));
    const onPort = (port: number) => schedule.devices.filter((d) => d.port === port);
    const turnsOf = (technician: number) =>
        schedule.devices.flatMap((d) => d.steps.filter((s) => s.technician === technician).map((s) => ({ ...s, d })));
    const past = (d: Device) => batch.jobs.find((j) => String(j.id) === d.id)?.past ?? [];
    const away = $derived(absences(batch.workshop, from, last));
    const device = $derived(schedule.devices.find((d) => d.id === chosen) ?? null);
    const where = (d: Device) => (d.port === null ? 'needs no port' : `port ${batch.portNames[d.port - 1]}`);
    const total = (d: Device) => (at(d.finishesAt) - at(d.startsAt)) / 60_000;
    const says = (d: Device) =>
        `${name(d.id)}, ${d.label}: ${between(d.startsAt, d.finishesAt)}. ${d.late?.words ?? 'In time.'}`;
    const hasRoom = (tick: number) => Math.abs(tick - x(now)) > 4000 / width && tick > 1 && tick < 97;
</script>

{#snippet frame()}
    {#each away as a (a.from)}<span
            class="board-away absolute inset-y-0"
            style:left="{Math.max(0, x(a.from))}%"
            style:width="{Math.min(100, x(a.until)) - Math.max(0, x(a.from))}%"
        ></span>{/each}
{/snippet}

<section class="panel overflow-x-auto" aria-label="Board of ports and hands over time">
    <div class="grid min-w-[44rem] grid-cols-[7.5rem_1fr]">
        <span></span>
        <div class="relative h-5 text-xs text-quiet" aria-hidden="true" bind:clientWidth={width}>
            {#each x.ticks(Math.max(2, Math.floor(width / 110))) as tick (tick.getTime())}{#if hasRoom(x(tick))}<span
                        class="absolute -translate-x-1/2 whitespace-nowrap"
                        style:left="{x(tick)}%"
                        >{last - from < 86_400_000 ? clock(tick) : tickWords(tick, last - from)}</span
                    >{/if}{/each}
            <span class="absolute -translate-x-1/2 font-semibold text-ink" style:left="{x(now)}%">now</span>
        </div>
        {#each ports as port (port)}
            <span class="flex min-h-11 items-center border-t border-edge px-2 text-sm leading-tight font-semibold"
                >Port {batch.portNames[port - 1]}</span
            >
            <div class="relative min-h-11 overflow-hidden border-t border-edge" data-port={port}>
                {@render frame()}
                {#each onPort(port) as d (d.id)}
                    {#each past(d) as p, i (i)}{#if p.startedAt !== null}<span
                                class="absolute top-5 h-4 bg-quiet"
                                style:left="{span(p.startedAt, p.endedAt ?? p.startedAt).left}%"
                                style:width="{span(p.startedAt, p.endedAt ?? p.startedAt).width}%"
                            ></span>{/if}{/each}
                    <button
                        class={[
                            'absolute top-0 bottom-0 flex items-start border-l-2 text-left',
                            d.late === null ? 'border-jade' : 'border-amber-mark',
                            chosen === d.id && 'bg-jade-wash',
                        ]}
                        style:left="{span(d.startsAt, d.finishesAt).left}%"
                        style:width="{span(d.startsAt, d.finishesAt).width}%"
                        aria-pressed={chosen === d.id}
                        aria-label={says(d)}
                        title={says(d)}
                        onclick={() => (chosen = chosen === d.id ? null : d.id)}
                    >
                        <span
                            class="block overflow-hidden pl-1 text-xs leading-5 whitespace-nowrap {d.late === null
                                ? ''
                                : 'font-semibold text-amber'}">{d.late === null ? '' : '▲ '}{name(d.id)}</span
                        >
                    </button>
                    {#each d.steps as s (s.step + s.leg)}<span
                            class={[
                                'pointer-events-none absolute',
                                s.technician === null ? 'top-[1.6rem] h-1.5' : 'top-5 h-4 rounded-sm',
                                d.late === null ? 'bg-jade' : 'bg-amber-mark',
                                s.technician === null && 'opacity-60',
                            ]}
                            style:left="{span(s.startsAt, s.endsAt).left}%"
                            style:width="{span(s.startsAt, s.endsAt).width}%"
                        ></span>{/each}
                {/each}
            </div>
        {/each}
        {#each batch.workshop.technicians as person, i (person)}
            <span class="flex min-h-9 items-center border-t border-edge px-2 text-sm leading-tight">{person}</span>
            <div class="relative min-h-9 overflow-hidden border-t border-edge" data-hands={i + 1}>
                {@render frame()}
                {#each turnsOf(i + 1) as s (s.d.id + s.step + s.leg)}<span
                        class={[
                            'absolute top-2.5 h-4 rounded-sm border-r border-panel',
                            chosen !== null && chosen !== s.d.id ? 'bg-edge' : s.d.late ? 'bg-amber-mark' : 'bg-jade',
                        ]}
                        style:left="{span(s.startsAt, s.endsAt).left}%"
                        style:width="{span(s.startsAt, s.endsAt).width}%"
                        title="{clock(s.startsAt)} {stepName(s.step)}: {name(s.d.id)}"
                    ></span>{/each}
            </div>
        {/each}
        <span class="flex min-h-9 items-center border-t border-edge px-2 text-sm leading-tight">The last is done</span>
        <div class="relative min-h-9 border-t border-edge" data-finish>
            {@render frame()}
            <span
                class="board-span absolute top-2.5 h-4"
                style:left="{span(schedule.finish.from, schedule.finish.until).left}%"
                style:width="{span(schedule.finish.from, schedule.finish.until).width}%"
            ></span>
            <span
                class="absolute top-1.5 bottom-1.5 border-l-2 border-jade"
                style:left="{x(at(schedule.finish.middle))}%"
            ></span>
        </div>
        <span></span>
        <div class="pointer-events-none relative" aria-hidden="true">
            <span class="board-line absolute bottom-0 border-l-2 border-ink" style:left="{x(now)}%"></span>
            {#if schedule.deadline !== null}<span
                    class="board-line absolute bottom-0 border-l-2 border-amber-mark"
                    style:left="{x(at(schedule.deadline))}%"
                ></span>
                <span
                    class={[
                        'absolute -top-[1.4rem] h-3.5 w-3.5 -translate-x-1/2 rotate-45',
                        'border-2 border-amber-mark bg-panel',
                    ]}
                    style:left="{x(at(schedule.deadline))}%"
                ></span>{/if}
        </div>
    </div>
    <p class="mt-3 text-xs text-quiet">
        Tall: by hand. Thin: runs alone. ▲ late. Hatched: nobody is there. {schedule.deadline === null
            ? ''
            : `Diamond: the deadline, ${moment(schedule.deadline)}.`} The striped span holds the end in 90 of 100 cases.
    </p>
    <div class="mt-2 min-h-12 text-sm" aria-live="polite">
        {#if device !== null}
            <p>
                <a class="link font-mono" href="#/jobs/{device.id}">{name(device.id)}</a>
                {device.label}, {where(device)}: {between(device.startsAt, device.finishesAt)}, {minutes(
                    total(device),
                )}.
                {#if device.late !== null}<strong class="text-amber">{device.late.words}</strong>{:else}In time.{/if}
            </p>
            <p class="text-quiet">
                {device.steps.map((s) => `${clock(s.startsAt)} ${stepName(s.step)}`).join(' · ')}
            </p>
        {:else if schedule.unplanned.length > 0}<p class="text-amber">
                Not in it: {schedule.unplanned.map((u) => `${name(u.id)}: ${u.why}`).join(' ')}
            </p>
        {:else}<p class="text-quiet">Choose a device on the board to see its steps.</p>{/if}
    </div>
</section>

<style>
    .board-away {
        background-image: repeating-linear-gradient(135deg, transparent 0 6px, var(--sunken) 6px 8px);
    }
    .board-span {
        background-image: repeating-linear-gradient(90deg, var(--jade) 0 3px, transparent 3px 6px);
        opacity: 0.75;
    }
    /* the lines cross every lane above them */
    .board-line {
        top: -200rem;
    }
</style>
