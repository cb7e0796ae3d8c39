<script lang="ts">
    import type { HandOver } from '../../api/types';
    import { minutes } from '../../parts/format';

    let { told }: { told: HandOver } = $props();
    const rows = $derived(told.times.filter((t) => !t.byHand && (t.took !== null || t.estimate !== null)));
    const took = $derived(rows.reduce((sum, t) => sum + (t.took ?? 0), 0));
    const legs = $derived(Math.max(0, ...told.times.map((t) => t.leg)));
    const beyond = (t: (typeof rows)[number]) => t.took !== null && t.estimate !== null && t.took > t.estimate.high;
</script>

<section class="panel" aria-labelledby="times">
    <h2 id="times" class="mb-1">Minutes, as estimated and as they were</h2>
    <table class="w-full text-sm">
        <thead class="text-left text-quiet"
            ><tr
                ><th class="font-normal">Step</th><th class="text-right font-normal">Estimated</th><th
                    class="text-right font-normal">From … to</th
                ><th class="text-right font-normal">Took</th></tr
            ></thead
        >
        <tbody>
            {#each rows as t (t.step + t.leg)}<tr class="border-t border-edge"
                    ><th scope="row" class="py-0.5 text-left font-normal"
                        >{t.title}{legs > 0 && ['enter-recovery', 'install', 'wake'].includes(t.step)
                            ? `, leg ${t.leg + 1}`
                            : ''}</th
                    ><td class="text-right">{t.estimate === null ? '–' : minutes(t.estimate.expected)}</td><td
                        class="text-right text-quiet"
                        >{t.estimate === null ? '' : `${minutes(t.estimate.low)} … ${minutes(t.estimate.high)}`}</td
                    ><td class="text-right font-semibold {beyond(t) ? 'text-amber' : ''}"
                        >{t.took === null ? '–' : minutes(t.took)}</td
                    ></tr
                >{/each}
            <tr class="border-t-2 border-edge font-semibold"
                ><th scope="row" class="py-0.5 text-left">Together</th><td class="text-right"
                    >{told.minutes === null ? '–' : minutes(told.minutes.expected)}</td
                ><td class="text-right font-normal text-quiet"
                    >{told.minutes === null ? '' : `${minutes(told.minutes.low)} … ${minutes(told.minutes.high)}`}</td
                ><td class="text-right">{minutes(took)}</td></tr
            >
        </tbody>
    </table>
</section>
