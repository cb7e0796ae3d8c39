<script lang="ts">
    import type { Job, Route } from '../../api/types';
    import { KIND_REASON, LOSS_OUTCOMES, OUTCOME, SOURCE } from '../../api/words';
    import { accessoryName, dayAndClock, kindName } from '../../parts/format';

    let { route, device }: { route: Route; device: Job['device'] } = $props();

    type Fate = Route['kinds'][number];
    const sources = Object.entries(SOURCE);
    const stock = (kind: string) => device?.kinds.find((k) => k.kind === kind);
    /** It comes back, and the device does not tell when it last changed. */
    const isOfUnknownAge = (k: Fate) => k.asOf !== null && stock(k.kind)?.lastChangedAt === null;
    const unpaired = $derived(route.losses.pairingLost.map((a) => accessoryName(device, a)));

    function ending(k: Fate): string {
        const words = k.asOf === null ? OUTCOME[k.outcome] : `${OUTCOME[k.outcome]}, as of ${dayAndClock(k.asOf)}`;
        const without = k.outcome === 'returned' && k.kind === 'accessory-pairing' ? unpaired : [];
        return without.length > 0 ? `${words}, without ${without.join(', ')}` : words;
    }
    let apart = $state(false);
    const rows = $derived.by(() => {
        const by: Record<string, Fate[]> = {};
        for (const k of route.kinds)
            (by[apart ? k.kind : `${ending(k)} ${k.from} ${k.reason} ${isOfUnknownAge(k)}`] ??= []).push(k);
        return Object.values(by).flatMap((kinds) => {
            const [first] = kinds;
            return first === undefined
                ? []
                : [{ first, kinds, items: kinds.reduce((n, k) => n + (stock(k.kind)?.items ?? 0), 0) }];
        });
    });
    const together = $derived(route.kinds.reduce((n, k) => n + (stock(k.kind)?.items ?? 0), 0));
</script>

<table class="w-full text-sm">
    <thead class="text-left text-quiet"
        ><tr
            ><th class="py-1 font-normal">Kind</th><th class="text-right font-normal">Items</th
            >{#each sources as [code, name] (code)}<th class="px-2 text-center font-normal">{name}</th>{/each}<th
                class="font-normal">How it ends</th
            ></tr
        ></thead
    >
    <tbody>
        {#each rows as r (r.first.kind)}
            <tr
                class="border-t border-edge align-top {LOSS_OUTCOMES.includes(r.first.outcome) ? 'text-loss' : ''}"
                data-ledger={r.kinds.map((k) => k.kind).join(' ')}
            >
                <th scope="row" class="py-1 pr-2 text-left font-normal"
                    >{r.kinds.map((k) => kindName(k.kind)).join(', ')}</th
                ><td class="py-1 text-right">{r.items}</td>
                {#each sources as [code, name] (code)}<td class="py-1 text-center"
                        >{#if r.first.from === code}<span class="inline-block h-3 w-5 rounded-full bg-jade align-middle"
                            ></span><span class="sr-only">from {name}</span>{:else}<span
                                class="text-edge"
                                aria-hidden="true">·</span
                            >{/if}</td
                    >{/each}
                <td class="py-1"
                    >{ending(r.first)}{#if isOfUnknownAge(r.first)}<span class="text-quiet"
                            >; its age is not known, since the device does not tell when it last changed</span
                        >{/if}{#if r.first.reason}<span class="text-quiet"
                            >: {KIND_REASON[r.first.reason]} <span class="code text-xs">{r.first.reason}</span></span
                        >{/if}</td
                >
            </tr>
        {/each}
    </tbody>
    <tfoot
        ><tr class="border-t border-edge text-quiet"
            ><td class="py-1"
                ><button class="min-h-8 underline underline-offset-4" onclick={() => (apart = !apart)}
                    >{apart ? 'Kinds of one fate together' : 'Each kind by itself'}</button
                ></td
            ><td class="text-right">{together}</td><td colspan={sources.length + 1} class="pl-2">together</td></tr
        ></tfoot
    >
</table>
