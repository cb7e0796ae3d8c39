<script lang="ts">
    import { Lock, Package, ShieldCheck, TriangleAlert } from '@lucide/svelte';
    import { link } from 'svelte-spa-router';
    import type { Bag } from '../../api/types';
    import { BAG_STATE } from '../../api/words';
    import { bytes, dayAndClock, version } from '../../parts/format';

    import type { SecondCopy } from '../../api/types';
    import { COPY_STATE } from './copies';

    type Props = { bag: Bag; copy: SecondCopy | null; marked: boolean; onmark: () => void };
    let { bag, copy, marked, onmark }: Props = $props();
    const sources = { job: 'by a job', schedule: 'at night', import: 'brought in' };
    const from = $derived(bag.loweredFrom === null ? sources[bag.source] : 'lowered copy');
    const closed = $derived(
        bag.encryption !== 'openpgp'
            ? 'plain'
            : bag.closedFor !== null
              ? 'for a key'
              : bag.passphraseProvenAt === null
                ? 'passphrase not proven'
                : 'encrypted, proven',
    );
</script>

<tr class="border-t border-edge align-top" data-bag={bag.id} data-state={bag.state}>
    <th scope="row" class="min-w-56 py-1.5 text-left font-normal"
        ><a
            class="inline-flex min-h-8 items-center underline decoration-edge underline-offset-4 hover:decoration-jade"
            href="/shelf/{encodeURIComponent(bag.id)}"
            use:link>{bag.label}</a
        ><span class="flex items-center gap-1.5 text-xs text-quiet"
            >{#if bag.encryption === 'openpgp'}<Lock size="1em" aria-hidden="true" />{/if}{closed}, {from}</span
        ></th
    >
    <td class="py-2.5 font-mono whitespace-nowrap">{bag.serial}</td>
    <td class="py-2.5">{dayAndClock(bag.takenAt)}</td>
    <td class="py-2.5"
        >{version(bag.madeOn)}{#if bag.declaredVersion !== bag.madeOn}<span class="block text-quiet"
                >declares {version(bag.declaredVersion)}</span
            >{/if}</td
    >
    <td class="py-2.5">
        <span class="flex items-center gap-1.5 {bag.state === 'damaged' ? 'font-semibold text-loss' : ''}">
            {#if bag.state === 'damaged'}<TriangleAlert
                    size="1.15em"
                    class="shrink-0"
                    aria-hidden="true"
                />{:else if bag.state === 'sealed'}<ShieldCheck
                    size="1.15em"
                    class="shrink-0 text-jade"
                    aria-hidden="true"
                />{:else}<Package size="1.15em" class="shrink-0 text-quiet" aria-hidden="true" />{/if}
            {BAG_STATE[bag.state]}{#if bag.checkState !== null}<span class="text-quiet"
                    >, being read {bag.checkProgress === null ? '' : `${Math.round(bag.checkProgress * 100)} %`}</span
                >{/if}
        </span>
        {#if copy !== null}<span class="block {copy.problem !== null ? 'text-amber' : 'text-quiet'}"
                >{copy.problem !== null ? 'not at the second place yet' : COPY_STATE[copy.state]}</span
            >{/if}
        {#if bag.keepUntil !== null}<span class="block text-quiet">until {dayAndClock(bag.keepUntil)}</span>{/if}
    </td>
    <td class="py-2.5 text-right whitespace-nowrap"
        >{bytes(bag.bytes)}{#if bag.ownBytes !== null && bag.bytes !== null && bag.ownBytes < bag.bytes}<span
                class="block text-quiet">{bag.ownBytes === 0 ? 'adds nothing' : `adds ${bytes(bag.ownBytes)}`}</span
            >{/if}</td
    >
    <td class="text-right"
        ><label class="inline-grid min-h-11 min-w-11 place-items-center"
            ><input
                type="checkbox"
                class="h-5 w-5 accent-[var(--jade)]"
                aria-label="Compare {bag.label}"
                checked={marked}
                onchange={onmark}
            /></label
        ></td
    >
</tr>
