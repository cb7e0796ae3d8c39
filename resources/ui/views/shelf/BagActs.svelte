<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { shelf, zipAddress } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { EXPORTED_KINDS } from '../../api/words';
    import Ask from '../../parts/Ask.svelte';
    import DayField from '../../parts/DayField.svelte';
    import { instant, kindName } from '../../parts/format';
    import { times } from '../../parts/times.svelte';

    let { bag, restedOn, leads, ondone }: { bag: Bag; restedOn: string | null; leads: boolean; ondone: () => void } =
        $props();

    const queries = useQueryClient();
    const again = () => void queries.invalidateQueries({ queryKey: ['shelf'] });
    const fail = (e: Error) => notices.refused(e);
    const verify = createMutation(() => ({ mutationFn: () => shelf.verify(bag.id), onSuccess: again, onError: fail }));
    const seal = createMutation(() => ({
        mutationFn: () => shelf.seal(bag.id, instant(`${until}T12:00`), null),
        onSuccess: () => {
            again();
        },
        onError: fail,
    }));
    const prove = createMutation(() => ({
        mutationFn: () => shelf.prove(bag.id, passphrase),
        onSuccess: () => {
            notices.success('The passphrase opened this bag whole.');
            passphrase = '';
            again();
        },
        onError: fail,
    }));
    const out = createMutation(() => ({
        mutationFn: () => shelf.exportKinds(bag.id, kinds, passphrase === '' ? null : passphrase),
        onSuccess: () => {
            passphrase = '';
        },
        onError: fail,
    }));
    const rename = createMutation(() => ({
        mutationFn: () => shelf.name(bag.id, name.trim()),
        onSuccess: () => {
            again();
        },
        onError: fail,
    }));
    const remove = createMutation(() => ({
        mutationFn: () => shelf.remove(bag.id, reason),
        onSuccess: () => {
            ondone();
            again();
        },
        onError: fail,
    }));
    let until = $state(times.isoDay(new Date(Date.now() + 180 * 86_400_000)));
    let asked = $state(false);
    let name = $derived(bag.label);
    let passphrase = $state('');
    let reason = $state('');
    let kinds = $state(['contacts', 'calendars', 'messages', 'notes']);
</script>

<form
    class="mb-3 flex items-end gap-2"
    onsubmit={(e) => {
        e.preventDefault();
        rename.mutate();
    }}
>
    <label class="flex flex-1 flex-col text-sm"
        >Name<input class="field" name="name" maxlength="120" required bind:value={name} /></label
    >
    <button class="act-quiet" disabled={rename.isPending || name.trim() === '' || name.trim() === bag.label}
        >Rename</button
    >
</form>
<div class="flex flex-wrap items-end gap-2">
    <button
        class="act-quiet"
        disabled={verify.isPending || bag.checkState !== null || bag.state === 'writing'}
        onclick={() => verify.mutate()}>Verify again</button
    >
    <a class="act-quiet" href={zipAddress(bag.id)} download>Carry out as ZIP</a>
    <a class="act-quiet" href="#/shelf/{encodeURIComponent(bag.id)}/label">Print its label</a>
    {#if bag.state === 'verified' || bag.state === 'sealed'}
        <form
            class="flex items-end gap-2"
            onsubmit={(e) => {
                e.preventDefault();
                seal.mutate();
            }}
        >
            <label class="flex flex-col text-xs text-quiet"
                >Keep until<DayField name="keepUntil" label="Keep until" required bind:value={until} /></label
            ><button class="act-quiet" disabled={seal.isPending}
                >{bag.state === 'sealed' ? 'Keep so long' : 'Seal this copy'}</button
            >
        </form>
    {/if}
</div>
{#if bag.encryption === 'openpgp' && bag.closedFor === null}
    <form
        class="mt-3 flex items-end gap-2"
        onsubmit={(e) => {
            e.preventDefault();
            prove.mutate();
        }}
    >
        <label class="flex flex-1 flex-col text-sm"
            >Passphrase<input
                class="field"
                type="password"
                name="passphrase"
                autocomplete="off"
                required
                bind:value={passphrase}
            /></label
        >
        <button class="act-quiet" disabled={prove.isPending || passphrase === ''}
            >{prove.isPending ? 'Opening…' : 'Prove that it opens'}</button
        >
    </form>
{/if}
<fieldset class="mt-3 text-sm">
    <legend class="font-semibold">Write out in open formats</legend>
    <div class="flex flex-wrap gap-x-4 gap-y-1">
        {#each EXPORTED_KINDS as k (k)}<label class="flex items-center gap-1.5"
                ><input type="checkbox" class="h-4 w-4 accent-[var(--jade)]" value={k} bind:group={kinds} />{kindName(
                    k,
                )}</label
            >{/each}
    </div>
    <button
        class="act-quiet mt-2"
        disabled={out.isPending || kinds.length === 0 || (bag.encryption === 'openpgp' && passphrase === '')}
        onclick={() => out.mutate()}>{out.isPending ? 'Writing out…' : 'Write out as ZIP'}</button
    >
</fieldset>
<form
    class="mt-3 flex items-end gap-2 border-t border-edge pt-3"
    onsubmit={(e) => {
        e.preventDefault();
        asked = true;
    }}
>
    <label class="flex flex-1 flex-col text-sm"
        >Why is it to be deleted?<input class="field" name="reason" maxlength="500" bind:value={reason} /></label
    >
    <button
        class="act-quiet text-loss"
        disabled={remove.isPending ||
            restedOn !== null ||
            bag.state === 'writing' ||
            (bag.state === 'sealed' && (!leads || reason.trim() === ''))}>Delete this bag</button
    >
</form>
<Ask
    bind:open={asked}
    title="Delete this bag?"
    yes="Delete it"
    no="Keep it"
    loss
    busy={remove.isPending}
    onyes={() => remove.mutate()}
    ><strong>{bag.label}</strong>: what it holds cannot be had back from here.{bag.state === 'sealed'
        ? ' It is a sealed copy.'
        : ''}</Ask
>
{#if restedOn !== null}<p class="mt-1 text-sm text-amber" data-rested-on>It cannot be deleted now. {restedOn}</p>{/if}
{#if bag.state === 'sealed' && !leads}<p class="mt-1 text-sm text-quiet">Only a lead deletes a sealed copy.</p>{/if}
