<script lang="ts">
    import type { KeyAction } from '../../api/types';
    import { keyName } from './recovery.svelte';

    /** The outline of the model with its own keys on its own edges; the one that is wanted stands out. */
    let {
        keys,
        form,
        on = null,
        taken = 0,
        held = 0,
    }: { keys: KeyAction[]; form: string | null; on?: number | null; taken?: number; held?: number } = $props();
    const [W, H] = $derived(form === 'tablet' ? [190, 250] : [130, 250]);
    const PAD = 108;
    const LONG = 23;
    const names = $derived([...new Set(keys.map((k) => k.target))]);
    const drawn = $derived(
        names.flatMap((name) => {
            const key = keys.find((k) => k.target === name);
            if (key?.edge == null || key.at === null) return [];
            const upright = key.edge === 'left' || key.edge === 'right';
            const x = key.edge === 'left' ? PAD - 9 : key.edge === 'right' ? PAD + W : PAD + key.at * W - LONG / 2;
            const y = key.edge === 'top' ? 29 : key.edge === 'bottom' ? 38 + H : 38 + key.at * H - LONG / 2;
            const steps = keys.flatMap((k, i) => (k.target === name ? [i] : []));
            return [{ name, edge: key.edge, upright, x, y, steps, now: on !== null && steps.includes(on) }];
        }),
    );
    const words = (k: (typeof drawn)[number]) =>
        k.edge === 'left'
            ? { x: k.x - 8, y: k.y + LONG / 2, anchor: 'end' as const }
            : k.edge === 'right'
              ? { x: k.x + 17, y: k.y + LONG / 2, anchor: 'start' as const }
              : { x: k.x + LONG / 2, y: k.edge === 'top' ? k.y - 10 : k.y + 24, anchor: 'middle' as const };
    const done = (k: (typeof drawn)[number]) => k.steps.every((s) => s < taken);
</script>

{#if drawn.length > 0}
    <svg
        viewBox="0 0 {W + 2 * PAD} {H + 60}"
        class="h-64 max-w-full"
        role="img"
        aria-label="Where the keys are: {drawn.map((k) => `${keyName(k.name)} on the ${k.edge}`).join(', ')}"
        data-outline
    >
        <rect x={PAD} y="38" width={W} height={H} rx="20" fill="var(--panel)" stroke="var(--quiet)" stroke-width="3" />
        <rect
            x={PAD + 9}
            y="47"
            width={W - 18}
            height={H - 18}
            rx="12"
            fill="var(--sunken)"
            stroke="var(--edge)"
            stroke-width="1.5"
        />
        <path d="M{PAD + W / 2 - 14} {38 + H - 20}h28" stroke="var(--edge)" stroke-width="4" stroke-linecap="round" />
        <path d="M{PAD + W / 2} {38 + H + 2}v20" stroke="var(--quiet)" stroke-width="6" />
        {#each drawn as k (k.name)}
            {@const at = words(k)}
            <rect
                x={k.x}
                y={k.y}
                width={k.upright ? 9 : LONG}
                height={k.upright ? LONG : 9}
                rx="3"
                fill={k.now ? 'var(--amber-mark)' : done(k) ? 'var(--jade)' : 'var(--panel)'}
                stroke={k.now ? 'var(--amber)' : done(k) ? 'var(--jade)' : 'var(--quiet)'}
                stroke-width={k.now ? 3 : 2}
                data-key={k.name}
                data-now={k.now}
            />
            {#if k.now && held > 0 && k.upright}<rect
                    x={k.x}
                    y={k.y + LONG * (1 - held)}
                    width="9"
                    height={LONG * held}
                    fill="var(--amber)"
                />{/if}
            <text
                x={at.x}
                y={at.y}
                text-anchor={at.anchor}
                dominant-baseline="middle"
                font-size="14"
                font-weight={k.now ? 700 : 400}
                fill={k.now ? 'var(--amber)' : 'var(--ink)'}>{keyName(k.name)}</text
            >
        {/each}
    </svg>
{/if}
