<script lang="ts">
    import type { Tide } from '../../api/types';
    import { bytes, counted, day, kindName } from '../../parts/format';

    /** What a bag holds: a line that rises where much was last changed, then its kinds by weight. */
    let {
        tide,
        counts,
        chosen = null,
        onkind = null,
    }: {
        tide: Tide;
        counts: Record<string, number>;
        chosen?: string | null;
        onkind?: ((kind: string) => void) | null;
    } = $props();
    const WIDTH = 720;
    const HEIGHT = 96;
    const most = $derived(Math.max(1, ...tide.spans.map((s) => s.bytes)));
    // a root, so that a few large days do not flatten all others
    const points = $derived(
        tide.spans.map((s, i) => ({
            x: ((i + 0.5) / tide.spans.length) * WIDTH,
            y: HEIGHT - 6 - Math.sqrt(s.bytes / most) * (HEIGHT - 16),
            span: s,
        })),
    );
    const line = $derived.by(() => {
        const all = [{ x: 0, y: HEIGHT - 4 }, ...points, { x: WIDTH, y: HEIGHT - 4 }];
        return all
            .map((p, i) => {
                const before = all[i - 1];
                if (before === undefined) return `M${p.x} ${p.y}`;
                const middle = (before.x + p.x) / 2;
                return `C${middle} ${before.y} ${middle} ${p.y} ${p.x} ${p.y}`;
            })
            .join('');
    });
    const first = $derived(tide.spans[0]);
    const last = $derived(tide.spans.at(-1));
    const high = $derived(tide.spans.find((s) => s.bytes === most));
    const kinds = $derived(
        Object.entries(counts)
            .filter(([, n]) => n > 0)
            .map(([kind, items]) => ({ kind, items, bytes: tide.bytes[kind] ?? 0 }))
            .sort((a, b) => b.bytes - a.bytes),
    );
    const heaviest = $derived(Math.max(1, ...kinds.map((k) => k.bytes)));
    const spanWords = (s: NonNullable<typeof high>) =>
        `${counted(s.items, 'item')}, ${bytes(s.bytes)}, last changed between ${day(s.from)} and ${day(s.until)}`;
</script>

{#if first && last}
    <figure data-tide>
        <figcaption class="text-sm text-quiet">When what it holds was last changed</figcaption>
        <svg
            viewBox="0 0 {WIDTH} {HEIGHT}"
            class="mt-1 h-28 w-full"
            preserveAspectRatio="none"
            role="img"
            aria-label={high === undefined ? 'Nothing' : `Most of it: ${spanWords(high)}`}
        >
            <path d="{line}L{WIDTH} {HEIGHT}H0z" fill="var(--water)" opacity="0.7" />
            <path d={line} fill="none" stroke="var(--jade)" stroke-width="2.5" vector-effect="non-scaling-stroke" />
            {#each points as p, i (i)}<rect
                    x={p.x - WIDTH / tide.spans.length / 2}
                    y="0"
                    width={WIDTH / tide.spans.length}
                    height={HEIGHT}
                    fill="transparent"><title>{spanWords(p.span)}</title></rect
                >{/each}
        </svg>
        <p class="flex justify-between text-sm text-quiet">
            <span>{day(first.from)}</span><span>{day(last.until)}</span>
        </p>
    </figure>
{/if}
<ul class="mt-2 text-sm" aria-label="Kinds, the heaviest first">
    {#each kinds as k (k.kind)}
        <li class="border-t border-edge">
            {#snippet row()}
                <span class="w-36 shrink-0 text-left {chosen === k.kind ? 'font-semibold' : ''}"
                    >{kindName(k.kind)}</span
                >
                <span class="h-2.5 flex-1" aria-hidden="true"
                    ><span
                        class="block h-full rounded-r-full bg-jade"
                        style:width="{Math.max(0.6, (k.bytes / heaviest) * 100)}%"
                    ></span></span
                >
                <span class="w-20 shrink-0 text-right text-quiet">{bytes(k.bytes)}</span>
                <span class="w-24 shrink-0 text-right">{counted(k.items, 'item')}</span>
            {/snippet}
            {#if onkind}<button
                    class="flex min-h-11 w-full items-center gap-3 hover:bg-sunken {chosen === k.kind
                        ? 'bg-jade-wash'
                        : ''}"
                    aria-pressed={chosen === k.kind}
                    data-kind={k.kind}
                    onclick={() => onkind(k.kind)}>{@render row()}</button
                >{:else}<span class="flex min-h-9 items-center gap-3" data-kind={k.kind}>{@render row()}</span>{/if}
        </li>
    {:else}<li class="text-quiet">It holds nothing.</li>{/each}
</ul>
