<script lang="ts">
    import type { Schedule } from '../../api/types';
    import { minutes } from '../../parts/format';
    import { inHundred } from './words';

    let { helps, deadline }: { helps: Schedule['helps']; deadline: boolean } = $props();
    type Help = Schedule['helps'][number];
    const points = (h: Help) => Math.round(Math.abs(h.gain) * 100);
    /** "then 98 in 100 (40 more)" */
    function chance(h: Help): string {
        const than = points(h) === 0 ? 'as now' : `${points(h)} ${h.gain > 0 ? 'more' : 'less'}`;
        return `then ${inHundred(h.chance)} (${than}); `;
    }
    const sooner = (h: Help) =>
        Math.abs(h.minutes) < 2
            ? 'done at the same time'
            : `done ${minutes(Math.abs(h.minutes))} ${h.minutes > 0 ? 'sooner' : 'later'}`;
    const helpful = (h: Help) => h.gain >= 0.01 || h.minutes >= 2;
</script>

<section class="panel py-3" aria-labelledby="helps">
    <h2 id="helps">What would help</h2>
    {#if helps.length === 0}<p class="text-sm text-quiet">Nothing else was tried.</p>
    {:else if !helps.some(helpful)}<p class="text-sm text-quiet">Nothing that was tried brings anything.</p>{/if}
    <ol class="text-sm">
        {#each helps as h (h.kind)}<li
                class="border-t border-edge py-1.5 {helpful(h) ? '' : 'text-quiet'}"
                data-help={h.kind}
            >
                <strong class={helpful(h) ? '' : 'font-normal'}>{h.words}</strong>
                <span class="block">{deadline ? chance(h) : ''}{sooner(h)}{h.late > 0 ? `, ${h.late} late` : ''}</span>
            </li>{/each}
    </ol>
</section>
