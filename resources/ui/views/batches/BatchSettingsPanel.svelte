<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { batches } from '../../api/batches';
    import type { Batch } from '../../api/types';
    import { counted } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { Devices } from './devices.svelte';
    import DevicesFields from './DevicesFields.svelte';
    import { Settings } from './settings.svelte';
    import SettingsFields from './SettingsFields.svelte';

    let { batch }: { batch: Batch } = $props();
    const queries = useQueryClient();
    const settings = new Settings(untrack(() => batch));
    let devices = $state(new Devices());
    const again = () => queries.invalidateQueries({ queryKey: ['batch', batch.id] });
    const change = createMutation(() => ({
        mutationFn: () => batches.change(batch.id, settings.written()),
        onSuccess: () => {
            notices.success('Kept. The schedule is made again.');
            void again();
        },
    }));
    const add = createMutation(() => ({
        mutationFn: () => batches.add(batch.id, devices.written()),
        onSuccess: () => {
            notices.success(`${counted(devices.many, 'device')} put in.`);
            devices = new Devices();
            void again();
        },
    }));
</script>

<div class="flex flex-col gap-4">
    <form
        class="panel"
        onsubmit={(e) => {
            e.preventDefault();
            change.mutate();
        }}
    >
        <h2 class="mb-2">By when, and with what</h2>
        <SettingsFields {settings} />
        {#if change.isError}<div class="mt-3"><Notice tone="amber">{change.error.message}</Notice></div>{/if}
        <button class="act mt-4" disabled={!settings.ready || change.isPending}>Keep these settings</button>
    </form>
    <form
        class="panel"
        onsubmit={(e) => {
            e.preventDefault();
            add.mutate();
        }}
    >
        <h2 class="mb-2">More devices</h2>
        <DevicesFields {devices} />
        {#if add.isError}<div class="mt-3"><Notice tone="amber">{add.error.message}</Notice></div>{/if}
        <button class="act mt-4" disabled={devices.many === 0 || add.isPending}
            >Put {counted(devices.many, 'device')} in</button
        >
    </form>
</div>
