<script lang="ts">
    import type { Job, Route } from '../../api/types';
    import { accessoryName, clock, kindName } from '../../parts/format';

    let { route, device }: { route: Route; device: Job['device'] } = $props();

    const sources = [
        ['device', 'Device'],
        ['base', 'Backup'],
        ['sync', 'Sync'],
        ['side-export', 'Export'],
    ] as const;
    const items = (kind: string) => device?.kinds.find((k) => k.kind === kind)?.items ?? 0;

    function ending(k: Route['kinds'][number]): string {
        const asOf = k.asOf === null ? '' : ` as of ${clock(k.asOf)}`;
        switch (k.outcome) {
            case 'kept':
                return 'is kept';
            case 'returned':
                return k.kind === 'accessory-pairing' && route.losses.pairingLost.length > 0
                    ? `comes back${asOf}, without ${route.losses.pairingLost.map((a) => accessoryName(device, a)).join(', ')}`
                    : `comes back${asOf}`;
            case 'returned-as-of':
                return `comes back${asOf}, without what is newer`;
            case 'sign-in-again':
                return 'sign in again by hand';
            case 're-enter':
                return 'enter again by hand';
            case 'at-risk':
                return 'at risk: may not come back';
            case 'lost':
                return 'is lost';
        }
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
            <tr class="border-t border-edge {k.outcome === 'lost' || k.outcome === 'at-risk' ? 'text-loss' : ''}">
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
                    >{ending(k)}{#if k.reason}<span class="code ml-2 whitespace-nowrap">{k.reason}</span>{/if}</td
                >
            </tr>
        {/each}
    </tbody>
</table>
