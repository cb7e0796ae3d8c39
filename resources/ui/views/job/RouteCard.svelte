<script lang="ts">
    import type { Route } from '../../api/types';
    import { bytes, dayAndClock, kindName, minutes, version } from '../../parts/format';

    let { route, accepted, mayAccept, busy, onaccept }: { route: Route; accepted: boolean; mayAccept: boolean; busy: boolean; onaccept: () => void } = $props();

    const leg = $derived(route.legs[0]);
    const back = $derived(route.kinds.filter((k) => k.outcome === 'returned').length);
    const again = $derived(route.kinds.filter((k) => k.outcome === 'sign-in-again' || k.outcome === 're-enter').map((k) => kindName(k.kind)));
    const losses = $derived([...route.losses.lost.map(kindName), ...route.losses.pairingLost, ...route.losses.appsUnavailable]);
</script>

<article class="panel {accepted ? 'border-jade' : ''}">
    <header class="flex items-center gap-3">
        <span class="rounded-full bg-sunken px-4 py-1.5 font-semibold">{version(leg?.from.version ?? '')}</span>
        <svg viewBox="0 0 120 20" class="h-5 flex-1" preserveAspectRatio="none" aria-hidden="true"><path d="M0 10h50" stroke="var(--jade)" stroke-width="2" /><path d="M56 0c-5 5 5 10 0 20" fill="none" stroke="var(--loss)" stroke-width="2" /><path d="M62 10h58" stroke="var(--jade)" stroke-width="2" stroke-dasharray="5 3" /></svg>
        <span class="rounded-full bg-jade px-4 py-1.5 font-semibold text-on-jade">{version(leg?.to.version ?? '')}</span>
    </header>
    <p class="mt-2">{route.trade}</p>
    <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
        <dt class="text-quiet">Time</dt><dd>about <strong>{minutes(route.minutes.expected)}</strong>, from {minutes(route.minutes.low)} to {minutes(route.minutes.high)}</dd>
        <dt class="text-quiet">To fetch</dt><dd>{bytes(route.fetchBytes)}, build <span class="font-mono">{leg?.to.build}</span></dd>
        <dt class="text-quiet">Disk at most</dt><dd>{bytes(route.diskPeakBytes)}</dd>
        <dt class="text-quiet">Backup</dt><dd>{route.base?.treatment === 'lowered' ? `put back through a copy that declares ${version(route.base.declaredVersion ?? '')}` : route.base?.treatment === 'as-is' ? 'put back as it is' : 'none'}</dd>
        <dt class="text-quiet">Comes back</dt><dd>{back} of {route.kinds.length} kinds{again.length > 0 ? `; by hand: ${again.join(', ')}` : ''}</dd>
        <dt class="text-quiet">Lost</dt><dd class={losses.length > 0 ? 'font-semibold text-loss' : ''}>{losses.length > 0 ? losses.join(', ') : 'nothing'}</dd>
        {#if route.latestStart !== null}<dt class="text-quiet">Start by</dt><dd>{dayAndClock(route.latestStart)}</dd>{/if}
    </dl>
    {#if mayAccept}<button class="act mt-4 w-full" disabled={busy} onclick={onaccept}>{losses.length > 0 ? 'Accept these losses and take this route' : 'Take this route'}</button>
    {:else if accepted}<p class="mt-3 font-semibold text-jade">This route was taken.</p>{/if}
</article>
