<script lang="ts">
    import { createMutation } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { batches } from '../../api/batches';
    import { counted } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { session } from '../../shell/session.svelte';
    import { Devices } from './devices.svelte';
    import DevicesFields from './DevicesFields.svelte';
    import { Settings } from './settings.svelte';
    import SettingsFields from './SettingsFields.svelte';

    const settings = new Settings();
    const devices = new Devices();
    const make = createMutation(() => ({
        mutationFn: () => batches.make(settings.written(), devices.written()),
        onSuccess: (batch) => {
            notices.success(`The batch is made, with ${counted(batch.jobs.length, 'device')}.`);
            void push(`/batches/${batch.id}`);
        },
    }));
</script>

<svelte:head><title>Make a batch · Jade Step</title></svelte:head>
<h1 class="mb-3">Make a batch</h1>
{#if !session.mayAct}<Notice>Your role looks on: a technician makes batches.</Notice>
{:else}
    <form
        class="flex flex-col gap-4"
        onsubmit={(e) => {
            e.preventDefault();
            make.mutate();
        }}
    >
        <section class="panel">
            <h2 class="mb-2">By when, and with what</h2>
            <SettingsFields {settings} />
        </section>
        <section class="panel">
            <h2 class="mb-2">Which devices</h2>
            <DevicesFields {devices} />
        </section>
        {#if make.isError}<Notice tone="amber">{make.error.message}</Notice>{/if}
        <div class="flex items-center gap-3">
            <button class="act" disabled={!settings.ready || devices.many === 0 || make.isPending}
                >{make.isPending
                    ? 'Taking the devices in…'
                    : `Make the batch of ${counted(devices.many, 'device')}`}</button
            >
            <a class="act-quiet" href="#/batches">Not now</a>
            {#if devices.many === 0}<span class="text-sm text-quiet">Choose a device, or paste a table.</span>{/if}
        </div>
    </form>
{/if}
