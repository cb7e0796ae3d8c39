<script lang="ts">
    import type { Forecast } from '../api/types';
    import { day } from './format';
    import Term from './Term.svelte';

    type Chance = NonNullable<Forecast['told']>['chances'][number];
    let { forecast }: { forecast: Forecast } = $props();
    const told = $derived(forecast.told);
    // that a window is shut, or its end announced, is said already
    const SAID = ['not-open', 'end-announced'];
    const silence = $derived(
        forecast.silence === null || SAID.includes(forecast.silence.code) ? null : forecast.silence,
    );
    const half = $derived(
        told?.halfClosedBy == null
            ? 'fewer than half were ever seen to close'
            : `half were closed by ${day(told.halfClosedBy)}`,
    );
    const share = (n: number) => Math.round(n * 100);
    const within = (c: Chance) => (c.low === null || c.high === null ? '' : ` (${share(c.low)} to ${share(c.high)})`);
    const AHEAD: Record<number, string> = { 7: 'a week', 30: 'a month' };
    const ahead = (days: number) => AHEAD[days] ?? `${days} days`;
    const later = (c: Chance) => `${c.words}${within(c)} were still open ${ahead(c.days)} later`;
</script>

{#if told !== null}
    <p data-forecast>
        <strong><Term of="estimate">Estimate</Term>:</strong>
        of windows as old as this one
        {told.chances.map(later).join(', ')}; {half}.
        <span class="text-quiet">{told.restsOn} No end is announced, and none is promised.</span>
    </p>
{:else if silence !== null}
    <p class="text-quiet" data-forecast-silent>No estimate: {silence.words}</p>
{/if}
