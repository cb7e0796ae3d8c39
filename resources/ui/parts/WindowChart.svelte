<script lang="ts">
    import { Maximize2, Minus, MoveLeft, MoveRight, Plus } from '@lucide/svelte';
    import { scaleTime } from 'd3-scale';
    import type { WindowLane, Windows } from '../api/types';
    import { FIT } from '../api/words';
    import { day, dayAndClock, tickWords } from './format';
    import { Span } from './span.svelte';
    import { times } from './times.svelte';

    let {
        windows,
        chosen,
        installed = null,
        taken = [],
        onchoose,
    }: {
        windows: Windows;
        chosen: string | null;
        installed?: string | null;
        /** Builds that the shown route installs. */
        taken?: string[];
        onchoose: (build: string) => void;
    } = $props();

    const span = new Span();
    let width = $state(600);
    const now = $derived(Date.parse(windows.now));
    $effect(() => {
        const all = windows.lanes.flatMap((l) => l.windows);
        span.know(
            all.map((w) => Date.parse(w.from)),
            all.flatMap((w) => (w.until === null ? [] : [Date.parse(w.until)])),
            now,
        );
    });
    const x = $derived(scaleTime().domain([span.from, span.until]).range([0, 100]));
    const format = $derived((at: Date) => tickWords(at, span.until - span.from));
    const stale = $derived(
        windows.freshUntil !== null && Date.parse(windows.freshUntil) < now
            ? Date.parse(windows.issuedAt ?? windows.now)
            : null,
    );
    const marks = {
        signed: 'signed, open',
        'end-announced': 'signed, end announced',
        closed: 'closed',
        'not-open-yet': 'not open yet',
        unknown: 'not known',
    };
    const fit = (lane: WindowLane) => windows.devices.map((d) => d.fits[lane.build] ?? 'takes');
    const on = (lane: WindowLane) => windows.devices.filter((d) => d.fits[lane.build] === 'installed');
    /** No device that is looked at can take it, whatever is signed. */
    const isShut = (lane: WindowLane) =>
        windows.devices.length > 0 && fit(lane).every((f) => f !== 'takes' && f !== 'installed');
    const shutWords = (lane: WindowLane) => FIT[(fit(lane)[0] ?? 'takes') as keyof typeof FIT];
    const installedWords = (lane: WindowLane) =>
        windows.devices.length > 1 ? `installed on ${on(lane).length} of ${windows.devices.length}` : 'installed';
    /** What stands beside a build in words: that it is installed, on the shown route, or about to end. */
    const noteOf = (lane: WindowLane) =>
        [
            lane.build === installed || on(lane).length > 0 ? installedWords(lane) : '',
            taken.includes(lane.build) ? 'on this route' : '',
            lane.state === 'end-announced' ? `ends ${times.dayOfYear(lane.windows.at(-1)?.until ?? windows.now)}` : '',
            half(lane) === null ? '' : `half closed by ${times.dayOfYear(half(lane) ?? windows.now)}`,
            isShut(lane) ? shutWords(lane) : '',
        ]
            .filter((w) => w !== '')
            .join(', ');
    const inside = (at: number) => at >= 0 && at <= 100;
    /**
     * What is estimated of an open window: from now on it gets thinner as such windows were closed. Each piece lasts
     * until the next of them was; the last one ends where nothing is known any more.
     */
    function estimate(lane: WindowLane) {
        const told = lane.forecast.told;
        if (told === null) return [];
        return told.points.map((p, i) => {
            const next = told.points[i + 1];
            const left = Math.max(0, x(Date.parse(p.at)));
            const end = Math.min(100, next === undefined ? x(Date.parse(p.at)) + 3 : x(Date.parse(next.at)));
            return { left, width: end - left, height: Math.max(1, 16 * p.chance), gone: p.chance === 0 };
        });
    }
    const half = (lane: WindowLane) => lane.forecast.told?.halfClosedBy ?? null;

    function bar(w: WindowLane['windows'][number]) {
        const until = w.until === null ? null : Date.parse(w.until);
        const left = Math.max(0, x(Date.parse(w.from)));
        const end = until === null ? 100 : x(until);
        return {
            left,
            end,
            width: Math.min(100, end) - left,
            untilNow: Math.min(100, x(now)) - left,
            open: until === null,
            ended: until !== null && until <= now,
            ahead: Date.parse(w.from) > now,
        };
    }

    /** The date stands where it crosses neither the line at now nor the edge. */
    const leftOf = (b: { left: number; end: number }) =>
        b.left > 20 && (b.end > 78 || (b.end <= x(now) && b.end + 19 > x(now)));

    /** Whether a date has room there, between the edges and beside the line at now. */
    const hasRoom = (at: number) =>
        Math.abs(at - x(now)) > 5000 / width && at > 2000 / width && at < 100 - 3000 / width;

    function wordOf(issuedAt: string): string {
        const whose = windows.vouched ? 'The vendor’s word' : 'From a file, not vouched for';
        const fresh = `${stale === null ? 'good until' : 'stale since'} ${dayAndClock(windows.freshUntil ?? issuedAt)}`;
        return `${whose}, ${fresh}`;
    }

    function onkeydown(event: KeyboardEvent) {
        if (event.ctrlKey || event.altKey || event.metaKey) return;
        const lanes = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[data-lane]')];
        const at = lanes.findIndex((l) => l === document.activeElement);
        if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            lanes[Math.max(0, Math.min(lanes.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))]?.focus();
            event.preventDefault();
        } else if (span.key(event.key)) event.preventDefault();
    }
</script>

<div class="flex items-center gap-1 text-sm text-quiet">
    <span
        class="mr-auto leading-tight"
        title={windows.issuedAt === null ? undefined : `Issued ${dayAndClock(windows.issuedAt)}`}
        >{windows.issuedAt === null ? 'No almanac is held.' : wordOf(windows.issuedAt)}</span
    >
    <button class="act-quiet !min-h-8 px-2" aria-label="Earlier" title="Earlier (←)" onclick={() => span.pan(-0.25)}
        ><MoveLeft size="1.05em" /></button
    >
    <button class="act-quiet !min-h-8 px-2" aria-label="Later" title="Later (→)" onclick={() => span.pan(0.25)}
        ><MoveRight size="1.05em" /></button
    >
    <button class="act-quiet !min-h-8 px-2" aria-label="Closer" title="Closer (+)" onclick={() => span.zoom(0.6)}
        ><Plus size="1.05em" /></button
    >
    <button
        class="act-quiet !min-h-8 px-2"
        aria-label="Wider"
        title="Wider (−)"
        disabled={span.isWhole}
        onclick={() => span.zoom(1 / 0.6)}><Minus size="1.05em" /></button
    >
    <button
        class="act-quiet !min-h-8 px-2"
        aria-label="The whole time"
        title="The whole time (0)"
        disabled={span.isWhole}
        onclick={() => span.showAll()}><Maximize2 size="1.05em" /></button
    >
</div>
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
    class="relative mt-1 grid grid-cols-[9.5rem_1fr] overflow-hidden"
    role="group"
    aria-label="Signing windows, one lane a build. Arrow keys move in time and between lanes, plus and minus zoom."
    {onkeydown}
>
    <span></span>
    <div class="relative h-5 text-xs text-quiet" aria-hidden="true" bind:clientWidth={width}>
        {#each x.ticks(Math.max(2, Math.floor(width / 110))) as tick (tick.getTime())}{#if hasRoom(x(tick))}<span
                    class="absolute -translate-x-1/2 whitespace-nowrap"
                    style:left="{x(tick)}%">{format(tick)}</span
                >{/if}{/each}
        {#if inside(x(now))}<span class="absolute -translate-x-1/2 font-semibold text-ink" style:left="{x(now)}%"
                >now</span
            >{/if}
    </div>
    {#each windows.lanes as lane (lane.build)}
        <button
            data-lane={lane.build}
            class={[
                'col-span-2 grid grid-cols-subgrid border-t border-edge text-left -outline-offset-2 hover:bg-sunken',
                chosen === lane.build && 'bg-jade-wash',
                isShut(lane) && 'lane-shut',
            ]}
            aria-pressed={chosen === lane.build}
            onclick={() => onchoose(lane.build)}
        >
            <span class="flex min-h-11 flex-col justify-center px-2 leading-tight"
                ><span class="whitespace-nowrap"
                    ><span class="font-semibold {lane.state === 'closed' ? 'text-quiet' : ''}">{lane.label}</span>
                    <span class="code">{lane.build}</span></span
                >{#if noteOf(lane) !== ''}<span
                        class="text-xs {lane.state === 'end-announced' ? 'text-amber' : 'text-quiet'}"
                        >{noteOf(lane)}</span
                    >{/if}<span class="sr-only"
                    >{marks[lane.state]}. {lane.words}{lane.build === installed ? ' Installed now.' : ''}</span
                ></span
            >
            <span class="relative min-h-11 overflow-hidden" aria-hidden="true">
                {#each estimate(lane) as piece, i (i)}{#if piece.width > 0 && !piece.gone}<span
                            class="lane-estimate absolute"
                            style:left="{piece.left}%"
                            style:width="{piece.width}%"
                            style:height="{piece.height}px"
                            style:top="{22 - piece.height / 2}px"
                        ></span>{/if}{/each}
                {#each lane.windows as w (w.from)}
                    {@const b = bar(w)}
                    {@const told = b.open && !b.ahead && lane.forecast.told !== null}
                    {#if (told ? b.untilNow : b.width) > 0}<span
                            class="absolute top-3.5 h-4 {b.ended
                                ? 'rounded-sm border border-quiet bg-sunken'
                                : b.ahead
                                  ? 'border-2 border-dashed border-jade'
                                  : 'rounded-l-sm bg-jade'} {b.open && !told ? 'lane-open' : ''}"
                            style:left="{b.left}%"
                            style:width="{told ? b.untilNow : b.width}%"
                        ></span>{/if}
                    {#if b.ended && w.until !== null && b.end > -20}<span
                            class="absolute top-3.5 bg-panel/70 px-0.5 text-xs whitespace-nowrap text-quiet"
                            style={leftOf(b) ? `right: calc(${100 - b.left}% + 6px)` : `left: calc(${b.end}% + 6px)`}
                            >closed {day(w.until)}</span
                        >
                    {:else if w.until !== null && inside(b.end)}<span
                            class={[
                                'absolute top-[0.9375rem] h-3.5 w-3.5 -translate-x-1/2 rotate-45',
                                'border-2 border-amber-mark bg-panel',
                            ]}
                            style:left="{b.end}%"
                        ></span>{/if}
                {/each}
            </span>
        </button>
    {/each}
    <span class="pointer-events-none absolute inset-y-0 right-0 left-[9.5rem]" aria-hidden="true">
        {#if inside(x(now))}<span class="absolute top-5 bottom-0 border-l-2 border-ink" style:left="{x(now)}%"
            ></span>{/if}
        {#if stale !== null}<span
                class="absolute top-5 right-0 bottom-0 bg-gradient-to-r from-transparent to-panel to-35%"
                style:left="{Math.max(0, x(stale))}%"
            ></span>{/if}
    </span>
</div>

<style>
    .lane-shut {
        background-image: repeating-linear-gradient(135deg, transparent 0 7px, var(--sunken) 7px 9px);
    }
    /* an estimate: neither the full colour of what is open, nor the mark of an end that is known */
    .lane-estimate {
        background-image: repeating-linear-gradient(90deg, var(--jade) 0 3px, transparent 3px 6px);
        opacity: 0.75;
    }
    .lane-open {
        mask-image: linear-gradient(to right, #000 calc(100% - 28px), transparent);
    }
</style>
