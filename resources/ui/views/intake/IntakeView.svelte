<script lang="ts">
    import { Tabs } from 'bits-ui';
    import DropPlace from '../../parts/DropPlace.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import BatchForm from './BatchForm.svelte';
    import ByHandForm from './ByHandForm.svelte';

    let shown = $state('by-hand');
    let brought = $state<File | null>(null);
    const trigger = 'rounded px-4 py-1.5 data-[state=active]:bg-panel data-[state=active]:font-semibold';
</script>

<svelte:head><title>Take in · Jade Step</title></svelte:head>
<div class="mb-3 flex items-baseline gap-4">
    <h1>Take in</h1>
    <p class="text-quiet">for devices that are not plugged in; a plugged-in device is taken in on the Bench.</p>
</div>
{#if !session.mayAct}<Notice>Your role looks on. A technician takes devices in.</Notice>
{:else}
    <DropPlace
        says="Let go: the table is looked at line by line; nothing is taken in before you say so."
        ontake={(f) => {
            brought = f;
            shown = 'batch';
        }}
    >
        <Tabs.Root bind:value={shown}>
            <Tabs.List class="mb-3 inline-flex gap-1 rounded-md bg-sunken p-1" aria-label="How to take in">
                <Tabs.Trigger value="by-hand" class={trigger}>One by hand</Tabs.Trigger>
                <Tabs.Trigger value="batch" class={trigger}>Several from a table</Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="by-hand"><ByHandForm /></Tabs.Content>
            <Tabs.Content value="batch"><BatchForm bind:dropped={brought} /></Tabs.Content>
        </Tabs.Root>
    </DropPlace>
{/if}
