<script lang="ts">
    import { scaleLinear } from 'd3-scale';
    import type { Report } from '../../api/types';
    import { bytes } from '../../parts/format';
    import { times } from '../../parts/times.svelte';

    /** What backups took at the end of each day. */
    let { days }: { days: Report['bytes'] } = $props();
    const [WIDTH, HEIGHT] = [520, 110];
    const most = $derived(Math.max(1, ...days.map((d) => d.bytes)));
    const y = $derived(scaleLinear().domain([0, most]).range([HEIGHT, 0]));
    const wide = $derived(Math.min(24, WIDTH / Math.max(1, days.length)));
    const last = $derived(days.at(-1));
    const first = $derived(days[0]);
    const grown = $derived(first && last ? last.bytes - first.bytes : 0);
    const words = $derived(grown >= 0 ? `${bytes(grown)} more` : `${bytes(-grown)} less`);
</script>

<section class="panel break-inside-avoid" aria-label="What backups take">
    <h2 class="mb-1">What backups take</h2>
    {#if last === undefined || first === undefined}<p class="text-sm text-quiet">Not a whole day is in this.</p>
    {:else}
        <p class="text-sm">
            {bytes(last.bytes)} at the end, {words} than at first.
        </p>
        <svg
            viewBox="0 -6 {WIDTH} {HEIGHT + 24}"
            class="mt-2 w-full max-w-xl text-quiet"
            role="img"
            aria-label="A bar for each day"
        >
            {#each days as d, i (d.day)}<rect
                    x={i * wide}
                    y={y(d.bytes)}
                    width={Math.max(1, wide - 2)}
                    height={HEIGHT - y(d.bytes)}
                    class="fill-jade"><title>{times.day(d.day)}: {bytes(d.bytes)}</title></rect
                >{/each}
            <line x1="0" x2={WIDTH} y1={HEIGHT} y2={HEIGHT} class="stroke-edge" />
            <text x="0" y={HEIGHT + 14} class="fill-current text-[10px]">{times.day(first.day)}</text>
            {#if days.length > 6}<text
                    x={wide * days.length}
                    y={HEIGHT + 14}
                    text-anchor="end"
                    class="fill-current text-[10px]">{times.day(last.day)}</text
                >{/if}
        </svg>
    {/if}
</section>
