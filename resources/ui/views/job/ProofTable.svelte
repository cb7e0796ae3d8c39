<script lang="ts">
    import type { KindAccount, Proof } from '../../api/types';
    import { OUTCOME_SHORT } from '../../api/words';
    import { day, kindName } from '../../parts/format';

    let { proof }: { proof: Proof } = $props();
    const kinds = $derived(proof.kinds.filter((k) => k.before > 0 || k.extra.length > 0));
    const promised = (k: KindAccount) =>
        k.outcome === 'returned-as-of' && k.asOf !== null ? `as of ${day(k.asOf)}` : OUTCOME_SHORT[k.outcome];
    const wrong = (k: KindAccount) => k.verdict === 'worse' && !k.namedLater;
    const short = (paths: string[], more = 0) =>
        `${paths.slice(0, 2).join(', ')}${paths.length + more > 2 ? ` and ${paths.length + more - 2} more` : ''}`;
</script>

<section class="panel" aria-labelledby="proof">
    <h2 id="proof" class="mb-1">Item by item</h2>
    <table class="w-full text-sm [&_td]:py-0.5">
        <thead class="text-left text-quiet"
            ><tr
                ><th class="font-normal">Kind</th><th class="pr-3 font-normal">Promised</th><th
                    class="pr-4 text-right font-normal whitespace-nowrap">There now</th
                ><th class="font-normal">What differs</th></tr
            ></thead
        >
        <tbody>
            {#each kinds as k (k.kind)}
                <tr
                    class="border-t border-edge align-top {wrong(k) ? 'text-loss' : ''}"
                    data-kind={k.kind}
                    data-verdict={k.verdict}
                >
                    <th scope="row" class="py-0.5 pr-2 text-left font-normal">{kindName(k.kind)}</th>
                    <td class="pr-2 whitespace-nowrap">{promised(k)}</td>
                    <td class="pr-4 text-right font-semibold whitespace-nowrap"
                        >{Math.min(k.there, k.before)} of {k.before}</td
                    >
                    <td class="break-words"
                        >{#if wrong(k)}<span class="block font-semibold">otherwise than promised</span
                            >{:else if k.namedLater}<span class="block">less than promised, accepted on the way</span
                            >{:else if k.verdict === 'better'}<span class="block">more than promised</span
                            >{/if}{#if k.missing.length > 0}<span class="mr-1"
                                >missing: {short(
                                    k.missing.map((m) => m.path),
                                    k.moreMissing,
                                )}.</span
                            >{/if}{#if k.changed.length > 0}<span class="text-quiet"
                                >{k.changed[0]?.words}
                                <span class="font-mono">{short(k.changed.map((c) => c.path))}</span>
                                <span class="code mr-1">{k.changed[0]?.rule}</span></span
                            >{/if}{#if k.extra.length > 0}<span class="text-quiet"
                                >{k.extra.length + k.moreExtra} new.
                            </span>{/if}{#if !k.compared}<span class="text-quiet"
                                >counted; no backup tells its items</span
                            >{/if}</td
                    >
                </tr>
            {/each}
        </tbody>
    </table>
</section>
