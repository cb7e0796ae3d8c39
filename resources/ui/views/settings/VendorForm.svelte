<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { almanac } from '../../api/almanac';
    import type { Vendor } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';

    let { vendor, onsaved }: { vendor: Vendor | null; onsaved: () => void } = $props();

    const queries = useQueryClient();
    let id = $state('');
    let name = $state(untrack(() => vendor?.name ?? ''));
    let address = $state(untrack(() => vendor?.address ?? ''));
    let refreshMinutes = $state(untrack(() => vendor?.refreshMinutes ?? 60));
    const save = createMutation(() => ({
        mutationFn: () => {
            const about = { name: name.trim(), address: address.trim() === '' ? null : address.trim(), refreshMinutes };
            return vendor === null ? almanac.addVendor(id.trim(), about) : almanac.changeVendor(vendor.id, about);
        },
        onSuccess: () => {
            void queries.invalidateQueries({ queryKey: ['vendors'] });
            void queries.invalidateQueries({ queryKey: ['almanac'] });
            onsaved();
        },
    }));
</script>

<form
    class="flex flex-wrap items-end gap-3"
    onsubmit={(e) => {
        e.preventDefault();
        save.mutate();
    }}
>
    {#if vendor === null}<label class="flex flex-col gap-1 text-sm"
            >Id in its catalogue<input class="field w-36 font-mono" name="id" required bind:value={id} /></label
        >{/if}
    <label class="flex flex-col gap-1 text-sm"
        >Name<input class="field w-40" name="name" required bind:value={name} /></label
    >
    <label class="flex flex-1 flex-col gap-1 text-sm"
        >Address; empty where its word comes from files only<input
            class="field min-w-64 font-mono"
            type="url"
            placeholder="https://…"
            name="address"
            bind:value={address}
        /></label
    >
    <label class="flex flex-col gap-1 text-sm"
        >Ask every … minutes<input
            class="field w-28"
            type="number"
            min="5"
            max="10080"
            required
            name="refreshMinutes"
            bind:value={refreshMinutes}
        /></label
    >
    <button class="act" disabled={save.isPending}>{vendor === null ? 'Add this vendor' : 'Save'}</button>
    {#if save.isError}<div class="w-full"><Notice tone="amber">{save.error.message}</Notice></div>{/if}
</form>
