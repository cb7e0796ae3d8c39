<script lang="ts">
    import { scaleLinear } from 'd3-scale';
    import type { Report } from '../../api/types';
    import { JOB_STATE } from '../../api/words';

    /** Jobs by some name, each bar cut by how they ended. A pattern goes with every shade. */
    let { rows, title }: { rows: Report['byModel']; title: string } = $props();
    const ORDER = ['done', 'backed-up', 'done-with-losses', 'abandoned', 'unfinished'] as const;
    const FILL: Record<string, string> = {
        done: 'fill-jade',
        'backed-up': 'fill-jade opacity-60',
        'done-with-losses': 'fill-amber',
        abandoned: 'fill-quiet opacity-60',
        unfinished: 'fill-loss',
    };
    const WIDTH = 260;
    const most = $derived(Math.max(1, ...rows.map((r) => r.jobs)));
    const x = $derived(scaleLinear().domain([0, most]).range([0, WIDTH]));
    const parts = (outcomes: Record<string, number>) => {
        let at = 0;
        return ORDER.filter((o) => (outcomes[o] ?? 0) > 0).map((outcome) => {
            const jobs = outcomes[outcome] ?? 0;
            const part = { outcome, jobs, x: x(at), width: x(jobs) };
            at += jobs;
            return part;
        });
    };
    const words = (outcomes: Record<string, number>) =>
        ORDER.filter((o) => (outcomes[o] ?? 0) > 0)
            .map((o) => `${outcomes[o]} ${JOB_STATE[o]}`)
            .join('; ');
</script>

<section class="panel break-inside-avoid" aria-label={title}>
    <h2 class="mb-2">{title}</h2>
    {#if rows.length === 0}<p class="text-sm text-quiet">No job ended in these days.</p>
    {:else}
        <table class="w-full text-sm">
            <tbody
                >{#each rows as row (row.name)}
                    <tr class="align-top">
                        <th scope="row" class="w-44 min-w-28 py-1 pr-3 text-left font-normal">{row.name}</th>
                        <td class="w-full py-1"
                            ><svg
                                viewBox="0 0 {WIDTH} 16"
                                class="h-4 w-full max-w-xl"
                                preserveAspectRatio="none"
                                aria-hidden="true"
                                >{#each parts(row.outcomes) as p (p.outcome)}<rect
                                        x={p.x}
                                        y="1"
                                        width={Math.max(0, p.width - 1)}
                                        height="14"
                                        class={FILL[p.outcome]}
                                    />{/each}</svg
                            ><span class="text-quiet">{words(row.outcomes)}</span></td
                        >
                        <td class="py-1 pl-3 text-right tabular-nums">{row.jobs}</td>
                    </tr>
                {/each}</tbody
            >
        </table>
    {/if}
</section>
