<script lang="ts">
    import type { Route } from '../../api/types';
    import { bytes, dayAndClock, kindName, minutes, version } from '../../parts/format';

    let { route, best, shown, accepted, mayAccept, busy, onshow, onaccept }: { route: Route; best: Route; shown: boolean; accepted: boolean; mayAccept: boolean; busy: boolean; onshow: () => void; onaccept: () => void } = $props();

    const leg = $derived(route.legs.at(-1));
    // where a route is like the best one, its figure steps back
    const same = (mine: unknown, other: unknown) => (route.id !== best.id && JSON.stringify(mine) === JSON.stringify(other) ? 'text-quiet' : '');
    const back = $derived(route.kinds.filter((k) => k.outcome === 'returned').length);
    const again = $derived(route.kinds.filter((k) => k.outcome === 'sign-in-again' || k.outcome === 're-enter').map((k) => kindName(k.kind)));
    const losses = $derived([...route.losses.lost.map(kindName), ...route.losses.pairingLost, ...route.losses.appsUnavailable]);
</script>

<article class="panel py-3 {accepted || shown ? 'border-jade' : ''}" data-route={route.id}>
    <header class="flex items-center gap-3">
        <span class="rounded-full bg-sunken px-4 py-1.5 font-semibold">{version(route.legs[0]?.from.version ?? '')}</span>
        <svg viewBox="0 0 120 20" class="h-5 flex-1" preserveAspectRatio="none" aria-hidden="true"><path d="M0 10h50" stroke="var(--jade)" stroke-width="2" /><path d="M56 0c-5 5 5 10 0 20" fill="none" stroke="var(--loss)" stroke-width="2" /><path d="M62 10h58" stroke="var(--jade)" stroke-width="2" stroke-dasharray="5 3" /></svg>
        {#each route.legs.slice(0, -1) as stop (stop.to.build)}<span class="rounded-full border border-jade px-3 py-1">{version(stop.to.version)}</span><span aria-hidden="true">→</span>{/each}
        <span class="rounded-full bg-jade px-4 py-1.5 font-semibold text-on-jade">{version(leg?.to.version ?? '')}</span>
    </header>
    <p class="mt-2">{route.trade}</p>
    {#if !shown}<button class="act-quiet mt-2" onclick={onshow}>Look at this route</button>{/if}
    {#if shown}
    <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
        <dt class="text-quiet">Time</dt><dd class={same(route.minutes.expected, best.minutes.expected)}>about <strong>{minutes(route.minutes.expected)}</strong>, from {minutes(route.minutes.low)} to {minutes(route.minutes.high)}</dd>
        <dt class="text-quiet">To fetch</dt><dd class={same(route.fetchBytes, best.fetchBytes)}>{bytes(route.fetchBytes)}, build <span class="font-mono">{leg?.to.build}</span></dd>
        <dt class="text-quiet">Disk at most</dt><dd class={same(route.diskPeakBytes, best.diskPeakBytes)}>{bytes(route.diskPeakBytes)}</dd>
        <dt class="text-quiet">Backup</dt><dd>{route.base?.treatment === 'lowered' ? `put back through a copy that declares ${version(route.base.declaredVersion ?? '')}` : route.base?.treatment === 'as-is' ? 'put back as it is' : route.base === null ? 'taken, and not needed: the data stays' : 'none is put back'}</dd>
        <dt class="text-quiet">Comes back</dt><dd>{back} of {route.kinds.length} kinds{again.length > 0 ? `; by hand: ${again.join(', ')}` : ''}</dd>
        <dt class="text-quiet">Lost</dt><dd class={losses.length > 0 ? 'font-semibold text-loss' : ''}>{losses.length > 0 ? losses.join(', ') : 'nothing'}</dd>
        {#if route.latestStart !== null}<dt class="text-quiet">Start by</dt><dd>{dayAndClock(route.latestStart)}</dd>{/if}
    </dl>
    {#if mayAccept}<button class="act mt-4 w-full" disabled={busy} onclick={onaccept}>{losses.length > 0 ? 'Accept these losses and take this route' : 'Take this route'}</button>
    {:else if accepted}<p class="mt-3 font-semibold text-jade">This route was taken.</p>{/if}
    {/if}
</article>
