<script lang="ts">
    import { scaleTime } from 'd3-scale';
    import type { WindowLane, Windows } from '../../api/types';
    import { day, dayAndClock } from '../../parts/format';

    let { windows, wanted, installed }: { windows: Windows; wanted: string | null; installed: string | null } = $props();

    const DAY = 86_400_000;
    let picked = $state<string | null>(null);
    const chosen = $derived(windows.lanes.find((l) => l.build === (picked ?? wanted)) ?? windows.lanes[0]);
    const now = $derived(Date.parse(windows.now));
    const starts = $derived(windows.lanes.flatMap((l) => l.windows.map((w) => Date.parse(w.from))));
    const x = $derived(scaleTime().domain([Math.min(now - 120 * DAY, ...starts) - 5 * DAY, now + 45 * DAY]).range([0, 100]));
    const stale = $derived(windows.freshUntil !== null && Date.parse(windows.freshUntil) < now ? Date.parse(windows.issuedAt ?? windows.now) : null);
    const marks = { signed: 'signed, open', 'end-announced': 'signed, end announced', closed: 'closed', 'not-open-yet': 'not open yet', unknown: 'not known' };

    const bar = (w: WindowLane['windows'][number]) => {
        const until = w.until === null ? null : Date.parse(w.until);
        const left = Math.max(0, x(Date.parse(w.from)));
        return { left, width: (until === null ? 100 : Math.min(100, x(until))) - left, open: until === null, ended: until !== null && until <= now, until: w.until };
    };
</script>

<p class="text-sm text-quiet">{windows.issuedAt === null ? 'No almanac is held.' : `The vendor’s word of ${dayAndClock(windows.issuedAt)}, good until ${dayAndClock(windows.freshUntil ?? windows.issuedAt)}`}</p>
{#if windows.lanes.length > 0}
    <div class="relative mt-2 grid grid-cols-[8.5rem_1fr]" role="group" aria-label="Signing windows, one lane a build">
        <span></span>
        <div class="relative h-5 text-xs text-quiet" aria-hidden="true">
            {#each x.ticks(6) as tick (tick.getTime())}{#if Math.abs(x(tick) - x(now)) > 5 && x(tick) < 97}<span class="absolute -translate-x-1/2" style:left="{x(tick)}%">{tick.toLocaleDateString('en-GB', { month: 'short' })}</span>{/if}{/each}
            <span class="absolute -translate-x-1/2 font-semibold text-ink" style:left="{x(now)}%">now</span>
        </div>
        {#each windows.lanes as lane (lane.build)}
            <button class="col-span-2 grid grid-cols-subgrid border-t border-edge text-left hover:bg-sunken {chosen?.build === lane.build ? 'bg-jade-wash' : ''}" aria-pressed={chosen?.build === lane.build} onclick={() => (picked = lane.build)}>
                <span class="flex items-center gap-2 px-2 py-1"><span class="font-semibold whitespace-nowrap">{lane.label}</span><span class="code">{lane.build}</span><span class="sr-only">{marks[lane.state]}{lane.build === installed ? ', installed now' : ''}</span></span>
                <span class="relative h-9" aria-hidden="true">
                    {#each lane.windows as w (w.from)}
                        {@const b = bar(w)}
                        <span class="absolute top-2.5 h-4 {b.ended ? 'rounded-sm border border-quiet bg-sunken' : 'rounded-l-sm bg-jade'} {b.open ? 'lane-open' : ''}" style:left="{b.left}%" style:width="{b.width}%"></span>
                        {#if b.ended && b.until !== null}<span class="absolute top-2 text-xs whitespace-nowrap text-quiet" style={b.left + b.width > x(now) - 26 ? `right: calc(${100 - b.left}% + 6px)` : `left: calc(${b.left + b.width}% + 6px)`}>closed {day(b.until)}</span>
                        {:else if b.until !== null}<span class="absolute top-[0.6875rem] h-3.5 w-3.5 -translate-x-1/2 rotate-45 border-2 border-amber-mark bg-panel" style:left="{b.left + b.width}%"></span>{/if}
                    {/each}
                    {#if lane.build === installed}<span class="absolute top-2 rounded bg-panel px-1 text-xs font-semibold ring-1 ring-edge" style:left="2px">installed</span>{/if}
                </span>
            </button>
        {/each}
        <span class="pointer-events-none absolute inset-y-0 right-0 left-[8.5rem]" aria-hidden="true">
            <span class="absolute top-5 bottom-0 border-l-2 border-ink" style:left="{x(now)}%"></span>
            {#if stale !== null}<span class="absolute top-5 right-0 bottom-0 bg-gradient-to-r from-transparent to-panel" style:left="{x(stale)}%"></span>{/if}
        </span>
    </div>
    {#if chosen}<p class="mt-2 border-l-4 border-jade pl-3" aria-live="polite"><strong>{chosen.label}</strong> ({chosen.channel}, released {day(chosen.releasedAt)}). {chosen.words}</p>{/if}
{:else}
    <p class="mt-2">No build in the almanac has a package for this model.</p>
{/if}

<style>
    .lane-open { mask-image: linear-gradient(to right, #000 calc(100% - 28px), transparent); }
</style>
