<script lang="ts">
    import type { Snippet } from 'svelte';
    import Logo from './Logo.svelte';

    /** The page that is shown while nobody is in: what is asked for on the left, the crossing on the right. */
    let { title, children }: { title: string; children: Snippet } = $props();
</script>

<svelte:head><title>{title} · Jade Step</title></svelte:head>
<main class="grid min-h-screen grid-cols-[1fr_minmax(0,0.8fr)]">
    <section class="flex flex-col justify-center px-[10vw]">
        <div class="mb-8 flex items-center gap-3">
            <Logo />
            <h1 class="text-2xl">Jade Step</h1>
        </div>
        {@render children()}
    </section>
    <aside class="relative overflow-hidden bg-water" aria-hidden="true">
        <svg viewBox="0 0 560 800" preserveAspectRatio="xMidYMid slice" class="absolute inset-0 h-full w-full">
            <path d="M0 0h70c-30 130 30 260 0 400s30 270 0 400H0z" fill="var(--paper)" />
            {#each [[95, 690], [170, 580], [255, 470], [335, 355], [405, 240], [462, 130]] as [x, y], i (i)}
                <ellipse
                    cx={x}
                    cy={y}
                    rx={52 - i * 3}
                    ry={25 - i * 1.5}
                    fill={i < 3 ? 'var(--jade)' : 'var(--panel)'}
                    stroke="var(--jade)"
                    stroke-width="2"
                />
            {/each}
        </svg>
    </aside>
</main>
