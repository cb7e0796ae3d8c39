<script lang="ts">
    import { Hourglass } from '@lucide/svelte';
    import { dayAndClock } from './format';

    let {
        until,
        ahead = 'start within',
        past = 'the latest start passed',
    }: { until: string; ahead?: string; past?: string } = $props();
    let now = $state(Date.now());
    const left = $derived(Date.parse(until) - now);
    const close = $derived(left < 3_600_000);
    $effect(() => {
        const timer = setInterval(() => (now = Date.now()), close ? 1000 : 20_000);
        return () => clearInterval(timer);
    });

    function words(ms: number): string {
        const s = Math.floor(ms / 1000);
        const [d, h, m] = [Math.floor(s / 86400), Math.floor((s % 86400) / 3600), Math.floor((s % 3600) / 60)];
        if (d > 0) return `${d} d ${h} h`;
        if (h > 0) return `${h} h ${m} min`;
        return m > 0 ? `${m} min ${s % 60} s` : `${s} s`;
    }
</script>

<span
    class="inline-flex items-center gap-1.5 {left < 0 ? 'text-loss' : close ? 'text-amber' : ''}"
    title={dayAndClock(until)}
    data-countdown
>
    <Hourglass size="1.05em" aria-hidden="true" />
    {#if left < 0}<span>{past} {words(-left)} ago</span>{:else}<span>{ahead} <strong>{words(left)}</strong></span>{/if}
</span>
