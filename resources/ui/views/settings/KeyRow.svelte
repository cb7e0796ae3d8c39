<script lang="ts">
    import { Key, KeyRound, ShieldOff } from '@lucide/svelte';
    import type { VendorKey } from '../../api/types';
    import Ask from '../../parts/Ask.svelte';
    import { dayAndClock } from '../../parts/format';

    let {
        key,
        vendorName,
        leads,
        busy,
        ondecide,
    }: {
        key: VendorKey;
        vendorName: string;
        leads: boolean;
        busy: boolean;
        ondecide: (state: 'accepted' | 'refused', name: string | null) => void;
    } = $props();
    let name = $state('');
    let asked = $state(false);
    const groups = $derived(key.thumbprint.match(/.{1,6}/g) ?? []);
</script>

<li
    class="border-t border-edge py-2 {key.state === 'offered' ? 'rounded-md bg-amber-wash px-3' : ''}"
    data-key={key.state}
>
    <p class="flex items-center gap-2">
        {#if key.state === 'accepted'}<KeyRound
                size="1.15em"
                class="text-jade"
                aria-hidden="true"
            />{:else if key.state === 'offered'}<Key
                size="1.15em"
                class="text-amber"
                aria-hidden="true"
            />{:else}<ShieldOff size="1.15em" class="text-quiet" aria-hidden="true" />{/if}
        <span class="font-semibold">{key.name ?? 'New key, not named yet'}</span>
        <span class="text-sm text-quiet"
            >{key.state}{key.decidedBy === null
                ? `, first seen ${dayAndClock(key.seenAt)}`
                : ` by ${key.decidedBy}, ${key.decidedAt === null ? '' : dayAndClock(key.decidedAt)}`}</span
        >
        {#if leads && key.state === 'accepted'}<button
                class="act-quiet ml-auto !min-h-8 text-sm"
                disabled={busy}
                onclick={() => (asked = true)}>Do not accept it any more</button
            >{/if}
    </p>
    <p class="mt-1 text-sm">
        <span class="text-quiet">Thumbprint</span>
        <span class="font-mono" aria-label={key.thumbprint}
            >{#each groups as g, i (i)}<span class="mr-1.5">{g}</span>{/each}</span
        >
    </p>
    {#if leads && key.state !== 'accepted'}
        <form
            class="mt-2 flex flex-wrap items-end gap-2"
            onsubmit={(e) => {
                e.preventDefault();
                ondecide('accepted', name);
            }}
        >
            <label class="flex flex-col gap-1 text-sm"
                >Compared with {vendorName}; accept it under the name<input
                    class="field w-72"
                    name="name"
                    required
                    maxlength="200"
                    placeholder="{vendorName}, second key"
                    bind:value={name}
                /></label
            >
            <button class="act" disabled={busy || name.trim() === ''}>Accept this key</button>
            {#if key.state === 'offered'}<button
                    type="button"
                    class="act-quiet"
                    disabled={busy}
                    onclick={() => ondecide('refused', null)}>Refuse it</button
                >{/if}
        </form>
    {/if}
    <Ask
        bind:open={asked}
        title="Do not accept this key any more?"
        yes="Refuse it"
        no="Keep it"
        onyes={() => ondecide('refused', null)}
        >What {vendorName} signs with it is not believed from now on; jobs that rest on it wait.</Ask
    >
</li>
