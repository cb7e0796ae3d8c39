<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { ApiProblem } from '../../api/client';
    import { shelf } from '../../api/shelf';
    import type { Keeping } from '../../api/types';

    let { leads }: { leads: boolean } = $props();
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['keeping'], queryFn: shelf.keeping }));
    let edited = $state<Keeping | null>(null);
    let passphrase = $state('');
    let publicKey = $state('');
    const k = $derived(edited ?? held.data ?? null);
    const closes = $derived(k?.passphraseHeld === true || k?.keyFingerprint != null);
    const save = createMutation(() => ({
        mutationFn: (keeping: Keeping) =>
            shelf.keep(keeping, passphrase === '' ? null : passphrase, publicKey === '' ? null : publicKey),
        onSuccess: () => {
            edited = null;
            passphrase = publicKey = '';
            void queries.invalidateQueries({ queryKey: ['keeping'] });
        },
        onError: (e) => {
            if (!(e instanceof ApiProblem && e.atField)) notices.error(e.message);
        },
    }));
    const set = (field: keyof Keeping, value: number | boolean) => {
        if (k) edited = { ...k, [field]: value };
    };
    const numbers: [keyof Keeping, string, number, number][] = [
        ['fromHour', 'from, o’clock', 0, 23],
        ['untilHour', 'until, o’clock', 0, 23],
        ['daily', 'days of which the latest stays', 1, 365],
        ['weekly', 'weeks of which the latest stays', 0, 520],
        ['verifyEveryDays', 'days until a bag is read again', 1, 365],
        ['sealedDays', 'days that a sealed copy is kept', 1, 3650],
        ['shareAtMost', 'bags that may rest on one copy of a file', 1, 64],
    ];
</script>

<section class="panel" aria-labelledby="keeping">
    <h2 id="keeping" class="mb-1">At night, and how long</h2>
    <p class="text-sm text-quiet">
        Devices that are plugged in, or near by air with their owner’s consent, paired and in no job are backed up, by
        the shop’s clock. Sealed copies are never thinned, nor the latest of a device.
    </p>
    {#if k && !leads}
        <dl class="mt-2 flex flex-wrap gap-x-6 gap-y-2 text-sm">
            <div>
                <dt class="text-quiet">back up at night</dt>
                <dd>{k.nightly ? (k.encrypted ? 'yes, encrypted' : 'yes, plain') : 'no'}</dd>
            </div>
            {#each numbers as [field, name] (field)}<div>
                    <dt class="text-quiet">{name}</dt>
                    <dd>{k[field]}</dd>
                </div>{/each}
            <div>
                <dt class="text-quiet">sealed copies whose date is past</dt>
                <dd>{k.deleteDue ? 'go by themselves' : 'wait for a lead'}</dd>
            </div>
        </dl>
    {:else if k}
        <form
            class="mt-2 flex flex-wrap items-end gap-3 text-sm"
            onsubmit={(e) => {
                e.preventDefault();
                save.mutate(k);
            }}
        >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-4 w-4 accent-[var(--jade)]"
                    checked={k.nightly}
                    onchange={(e) => set('nightly', e.currentTarget.checked)}
                />back up at night</label
            >
            <label class="flex items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-4 w-4 accent-[var(--jade)]"
                    checked={k.encrypted}
                    onchange={(e) => set('encrypted', e.currentTarget.checked)}
                />encrypted</label
            >
            {#if k.encrypted}<label class="flex flex-col"
                    >{k.passphraseHeld ? 'another passphrase for the nights' : 'passphrase for the nights'}<input
                        class="field !min-h-10 w-64"
                        type="password"
                        autocomplete="off"
                        minlength="12"
                        required={!closes && publicKey === ''}
                        placeholder={k.passphraseHeld ? 'one is held' : 'at least 12 characters'}
                        name="passphrase"
                        bind:value={passphrase}
                    /></label
                >{/if}
            {#if k.encrypted}<label class="flex flex-col"
                    >{k.keyFingerprint === null
                        ? 'or a public OpenPGP key, so that nothing secret is held'
                        : 'closed for this key; another one'}<textarea
                        class="field w-96 font-mono text-xs"
                        rows="2"
                        placeholder={k.keyFingerprint ?? '-----BEGIN PGP PUBLIC KEY BLOCK-----'}
                        name="publicKey"
                        bind:value={publicKey}></textarea></label
                >{/if}
            {#each numbers as [field, name, min, max] (field)}<label class="flex flex-col"
                    >{name}<input
                        class="field !min-h-10 w-28"
                        type="number"
                        {min}
                        {max}
                        required
                        name={field}
                        value={k[field]}
                        oninput={(e) => set(field, e.currentTarget.valueAsNumber)}
                    /></label
                >{/each}
            <label class="flex basis-full items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-4 w-4 accent-[var(--jade)]"
                    name="deleteDue"
                    checked={k.deleteDue}
                    onchange={(e) => set('deleteDue', e.currentTarget.checked)}
                />delete sealed copies by themselves when their date is past, but for what an open job rests on</label
            >
            <button class="act" disabled={(edited === null && passphrase === '' && publicKey === '') || save.isPending}
                >Save</button
            >
        </form>
    {/if}
</section>
