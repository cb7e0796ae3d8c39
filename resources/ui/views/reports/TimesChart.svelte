<script lang="ts">
    import { scaleLinear } from 'd3-scale';
    import type { Report } from '../../api/types';
    import { counted, minutes } from '../../parts/format';

    /** Each job once: what was estimated along, what it took up; on the line both are the same. */
    let { report }: { report: Report } = $props();
    const SIZE = 220;
    const most = $derived(Math.max(10, ...report.times.flatMap((t) => [t.estimated, t.took])));
    const scale = $derived(scaleLinear().domain([0, most]).range([0, SIZE]).nice());
    const ticks = $derived(scale.ticks(4));
    const share = $derived(
        report.minutes.estimated > 0 ? Math.round((report.minutes.took / report.minutes.estimated) * 100) : null,
    );
</script>

<section class="panel break-inside-avoid" aria-label="Minutes against estimates">
    <h2 class="mb-1">Minutes against estimates</h2>
    {#if share === null}<p class="text-sm text-quiet">No job of these days has both.</p>
    {:else}
        <p class="text-sm">
            {counted(report.minutes.jobs, 'job')} took {minutes(report.minutes.took)} of the machine’s own time, of
            {minutes(report.minutes.estimated)} that were estimated: {share} %.
        </p>
        <svg
            viewBox="-40 -8 {SIZE + 56} {SIZE + 44}"
            class="mt-2 w-full max-w-xs text-quiet"
            role="img"
            aria-label="A point for each job: estimated minutes along, minutes taken up"
        >
            {#each ticks as t (t)}
                <line x1={scale(t)} x2={scale(t)} y1="0" y2={SIZE} class="stroke-edge" />
                <line x1="0" x2={SIZE} y1={SIZE - scale(t)} y2={SIZE - scale(t)} class="stroke-edge" />
                <text x={scale(t)} y={SIZE + 14} text-anchor="middle" class="fill-current text-[10px]">{t}</text>
                <text x="-6" y={SIZE - scale(t) + 3} text-anchor="end" class="fill-current text-[10px]">{t}</text>
            {/each}
            <line x1="0" y1={SIZE} x2={SIZE} y2="0" class="stroke-quiet" stroke-dasharray="4 4" />
            {#each report.times as t (t.job)}<circle
                    cx={scale(t.estimated)}
                    cy={SIZE - scale(t.took)}
                    r="4"
                    class={t.took > t.estimated ? 'fill-amber' : 'fill-jade'}
                    ><title>Job {t.job}: estimated {t.estimated}, took {t.took} min</title></circle
                >{/each}
            <text x={SIZE / 2} y={SIZE + 30} text-anchor="middle" class="fill-current text-[10px]"
                >estimated, minutes</text
            >
            <text
                transform="translate(-30 {SIZE / 2}) rotate(-90)"
                text-anchor="middle"
                class="fill-current text-[10px]">took, minutes</text
            >
        </svg>
    {/if}
</section>
