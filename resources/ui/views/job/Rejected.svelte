<script lang="ts">
    import type { Plan } from '../../api/types';
    import { QUESTION, REASON, REASON_BARE } from '../../api/words';
    import { dayAndClock, version } from '../../parts/format';

    let { rejected }: { rejected: Plan['rejected'] } = $props();

    type Reason = Plan['rejected'][number]['reasons'][number];
    function words(r: Reason): string {
        const facts: Record<string, string | undefined> = {
            since: r.since && dayAndClock(r.since),
            from: r.from && dayAndClock(r.from),
            hardwareIds: r.hardwareIds?.join(', '),
            question: QUESTION[r.question ?? 'plug-in'],
            minimum: r.minimum === undefined ? undefined : String(r.minimum),
        };
        const wanted = [...REASON[r.code].matchAll(/\{(\w+)\}/g)].map((m) => m[1] ?? '');
        return wanted.some((name) => facts[name] === undefined)
            ? REASON_BARE[r.code]
            : wanted.reduce((said, name) => said.replace(`{${name}}`, facts[name] ?? ''), REASON[r.code] as string);
    }
</script>

<h3 class="mt-3 mb-1 text-sm font-semibold">Other builds of this goal, and why not</h3>
<ul class="text-sm">
    {#each rejected as r (r.build)}<li class="border-t border-edge py-1">
            <span class="font-semibold">{version(r.version)}</span> <span class="code">{r.build}</span>:
            {#each r.reasons as reason, i (reason.code)}
                {i > 0 ? '; ' : ''}{words(reason)} <span class="code">{reason.code}</span>
            {/each}
        </li>{/each}
</ul>
