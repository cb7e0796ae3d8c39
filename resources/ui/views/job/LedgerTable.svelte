<script lang="ts">
    import type { Job, Route } from '../../api/types';
    import { KIND_REASON, LOSS_OUTCOMES, OUTCOME, SOURCE } from '../../api/words';
    import { accessoryName, clock, kindName } from '../../parts/format';

    let { route, device }: { route: Route; device: Job['device'] } = $props();

    const sources = Object.entries(SOURCE);
    const stock = (kind: string) => device?.kinds.find((k) => k.kind === kind);
    const items = (kind: string) => stock(kind)?.items ?? 0;
    /** It comes back, and the device does not tell when it last changed. */
    const isOfUnknownAge = (k: Route['kinds'][number]) => k.asOf !== null && stock(k.kind)?.lastChangedAt === null;

    const unpaired = $derived(route.losses.pairingLost.map((a) => accessoryName(device, a)));

    function ending(k: Route['kinds'][number]): string {
        const words = k.asOf === null ? OUTCOME[k.outcome] : `${OUTCOME[k.outcome]}, as of ${clock(k.asOf)}`;
        const without = k.outcome === 'returned' && k.kind === 'accessory-pairing' ? unpaired : [];
        return without.length > 0 ? `${words}, without ${without.join(', ')}` : words;
    }
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
        {#each route.kinds as k (k.kind)}
            <tr class="border-t border-edge {LOSS_OUTCOMES.includes(k.outcome) ? 'text-loss' : ''}">
                <th scope="row" class="py-1 text-left font-normal">{kindName(k.kind)}</th><td class="text-right"
                    >{items(k.kind)}</td
                >
                {#each sources as [code, name] (code)}<td class="text-center"
                        >{#if k.from === code}<span class="inline-block h-3 w-5 rounded-full bg-jade align-middle"
                            ></span><span class="sr-only">from {name}</span>{:else}<span
                                class="text-edge"
                                aria-hidden="true">·</span
                            >{/if}</td
                    >{/each}
                <td
                    >{ending(k)}{#if isOfUnknownAge(k)}<span class="text-quiet"
                            >; its age is not known, since the device does not tell when it last changed</span
                        >{/if}{#if k.reason}<span class="text-quiet">: {KIND_REASON[k.reason]}</span>
                        <span class="code whitespace-nowrap">{k.reason}</span>{/if}</td
                >
            </tr>
        {/each}
    </tbody>
</table>
