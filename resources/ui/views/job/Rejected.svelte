<script lang="ts">
    import type { Plan } from '../../api/types';
    import { MOVE_REASONS, QUESTION, REASON, REASON_BARE } from '../../api/words';
    import { counted, dayAndClock, version } from '../../parts/format';

    /** Builds of the goal that are shut, each with one reason; the others stay folded. */
    let { rejected, open = false }: { rejected: Plan['rejected']; open?: boolean } = $props();

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
    /** One reason is said; where a build is shut for every move, what stands against single moves comes last. */
    function parted(reasons: Reason[]): { first: Reason[]; folded: Reason[] } {
        const isOfMove = (r: Reason) => MOVE_REASONS.includes(r.code);
        const sorted = [...reasons.filter((r) => !isOfMove(r)), ...reasons.filter(isOfMove)];
        return { first: sorted.slice(0, 1), folded: sorted.slice(1) };
    }
</script>

{#snippet list(reasons: Reason[])}
    {#each reasons as reason, i (reason.code)}
        {i > 0 ? '; ' : ''}{words(reason)} <span class="code text-xs">{reason.code}</span>
    {/each}
{/snippet}

<details class="text-sm" {open}>
    <summary class="min-h-8 cursor-pointer">{counted(rejected.length, 'other build')} of this goal, and why not</summary
    >
    <ul>
        {#each rejected as r (r.build)}{@const { first, folded } = parted(r.reasons)}
            <li class="border-t border-edge py-1" data-rejected={r.build}>
                <span class="font-semibold">{version(r.version)}</span>
                <span class="code text-xs">{r.build}</span>: {@render list(first)}
                {#if folded.length > 0}<details class="inline-block">
                        <summary class="cursor-pointer text-quiet underline underline-offset-4"
                            >and {counted(folded.length, 'more reason')}</summary
                        >
                        {@render list(folded)}
                    </details>{/if}
            </li>{/each}
    </ul>
</details>
