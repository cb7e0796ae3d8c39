<script lang="ts">
    import type { Plan } from '../../api/types';
    import { MOVE_REASONS, QUESTION, REASON, REASON_BARE } from '../../api/words';
    import { dayAndClock, version } from '../../parts/format';

    let { rejected }: { rejected: Plan['rejected'] } = $props();

    type Reason = Plan['rejected'][number]['reasons'][number];
    function words(r: Reason): string {
        const facts: Record<string, string | undefined> = {
            since: r.since && dayAndClock(r.since),
            until: r.until && dayAndClock(r.until),
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
    /** Where a build is shut for every move, what stands against single moves is only looked at when it is wanted. */
    function parted(reasons: Reason[]): { first: Reason[]; folded: Reason[] } {
        const isOfMove = (r: Reason) => MOVE_REASONS.includes(r.code);
        const every = reasons.filter((r) => !isOfMove(r));
        return every.length === 0 ? { first: reasons, folded: [] } : { first: every, folded: reasons.filter(isOfMove) };
    }
</script>

{#snippet list(reasons: Reason[])}
    {#each reasons as reason, i (reason.code)}
        {i > 0 ? '; ' : ''}{words(reason)} <span class="code">{reason.code}</span>
    {/each}
{/snippet}

<h3 class="mt-3 mb-1 text-sm font-semibold">Other builds of this goal, and why not</h3>
<ul class="text-sm">
    {#each rejected as r (r.build)}{@const { first, folded } = parted(r.reasons)}
        <li class="border-t border-edge py-1">
            <span class="font-semibold">{version(r.version)}</span> <span class="code">{r.build}</span>:
            {@render list(first)}
            {#if folded.length > 0}<details class="inline-block">
                    <summary class="cursor-pointer text-quiet underline underline-offset-4"
                        >and against single moves</summary
                    >
                    {@render list(folded)}
                </details>{/if}
        </li>{/each}
</ul>
