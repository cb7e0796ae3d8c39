<script lang="ts">
    import type { Calibration } from '../../api/types';

    /** How often windows held where so much was said, and the score of it against always saying the same. */
    let { calibration, ahead }: { calibration: Calibration; ahead: string } = $props();
    const share = (n: number) => Math.round(n * 100);
    const score = (n: number | null) => (n === null ? '–' : n.toFixed(3));
    const better = $derived(
        calibration.score !== null && calibration.baseScore !== null && calibration.score < calibration.baseScore,
    );
</script>

<div class="mt-2 text-sm" data-calibration={calibration.days}>
    <table class="w-full">
        <caption class="text-left font-semibold">{ahead} ahead, {calibration.told} times</caption>
        <thead
            ><tr class="text-left text-quiet">
                <th class="pr-3 font-normal">It said, in 100</th>
                <th class="pr-3 text-right font-normal">times</th>
                <th class="pr-3 text-right font-normal">said on average</th>
                <th class="text-right font-normal">held</th>
            </tr></thead
        >
        <tbody>
            {#each calibration.bands as b (b.from)}<tr class="border-t border-edge">
                    <td class="py-0.5 pr-3">{share(b.from)} to {share(b.until)}</td>
                    <td class="pr-3 text-right">{b.told}</td>
                    <td class="pr-3 text-right">{b.said === null ? '–' : share(b.said)}</td>
                    <td class="text-right">{b.told === 0 ? '–' : share(b.held / b.told)}</td>
                </tr>{/each}
        </tbody>
    </table>
    <p class="mt-1">
        <span title="Brier score: the mean squared distance between what was said and what happened"
            >Brier score {score(calibration.score)}</span
        >, always saying {calibration.baseRate === null ? '–' : share(calibration.baseRate)} would score {score(
            calibration.baseScore,
        )}:
        <strong>{better ? 'it knows more than the plain share.' : 'it knows no more than the plain share.'}</strong>
    </p>
</div>
