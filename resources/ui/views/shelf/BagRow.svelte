<script lang="ts">
    import { Lock, LockOpen, Package, ShieldCheck, TriangleAlert } from '@lucide/svelte';
    import type { Bag } from '../../api/types';
    import { bytes, dayAndClock, version } from '../../parts/format';

    let {
        bag,
        chosen,
        marked,
        onchoose,
        onmark,
    }: { bag: Bag; chosen: boolean; marked: boolean; onchoose: () => void; onmark: () => void } = $props();
    const sources = { job: 'a job', schedule: 'the night', import: 'outside' };
</script>

<tr class="border-t border-edge align-top {chosen ? 'bg-jade-wash' : ''}" data-bag={bag.id} data-state={bag.state}>
    <td class="py-2 pl-2"
        ><input
            type="checkbox"
            class="h-4 w-4 accent-[var(--jade)]"
            aria-label="Compare {bag.label}"
            checked={marked}
            onchange={onmark}
        /></td
    >
    <th scope="row" class="py-1.5 text-left font-normal"
        ><button class="text-left underline decoration-edge underline-offset-4 hover:decoration-jade" onclick={onchoose}
            >{bag.label}</button
        ><span class="code block break-all">{bag.id}</span></th
    >
    <td class="font-mono whitespace-nowrap">{bag.serial}</td>
    <td class="whitespace-nowrap">{dayAndClock(bag.takenAt)}</td>
    <td
        >{version(bag.madeOn)}{#if bag.declaredVersion !== bag.madeOn}<span class="block text-quiet"
                >declares {version(bag.declaredVersion)}</span
            >{/if}</td
    >
    <td>
        <span class="flex items-center gap-1.5 {bag.state === 'damaged' ? 'font-semibold text-loss' : ''}">
            {#if bag.state === 'damaged'}<TriangleAlert
                    size={16}
                    aria-hidden="true"
                />{:else if bag.state === 'sealed'}<ShieldCheck
                    size={16}
                    class="text-jade"
                    aria-hidden="true"
                />{:else}<Package size={16} class="text-quiet" aria-hidden="true" />{/if}
            {bag.state}{#if bag.checkState !== null}<span class="text-quiet"
                    >, being read {bag.checkProgress === null ? '' : `${Math.round(bag.checkProgress * 100)} %`}</span
                >{/if}
        </span>
        {#if bag.keepUntil !== null}<span class="block text-quiet">until {dayAndClock(bag.keepUntil)}</span>{/if}
    </td>
    <td
        >{#if bag.encryption === 'openpgp'}<span class="flex items-center gap-1.5"
                ><Lock size={16} aria-hidden="true" />{bag.closedFor !== null
                    ? 'for a key'
                    : bag.passphraseProvenAt === null
                      ? 'passphrase not proven'
                      : 'proven'}</span
            >{:else}<span class="flex items-center gap-1.5 text-quiet"
                ><LockOpen size={16} aria-hidden="true" />plain</span
            >{/if}</td
    >
    <td class="text-right whitespace-nowrap">{bytes(bag.bytes)}</td>
    <td class="pr-2">{bag.loweredFrom === null ? sources[bag.source] : 'lowered copy'}</td>
</tr>
