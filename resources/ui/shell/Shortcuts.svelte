<script lang="ts">
    import { Dialog } from 'bits-ui';

    let { open = $bindable(false) }: { open: boolean } = $props();
    const keys: [string, string][] = [
        ['Ctrl K', 'Find anything, or do something'],
        ['b', 'Bench'],
        ['a', 'Almanac'],
        ['h', 'Shelf'],
        ['r', 'Rig, for practice'],
        ['j', 'Journal'],
        ['s', 'Settings'],
        ['t', 'Take in a device that is not plugged in'],
        ['1 … 6', 'Look at a stage of the job'],
        ['n', 'From anywhere: to the next job that needs a hand'],
        ['← → ↑ ↓ + − 0', 'In a window chart: move in time, between lanes, zoom'],
        ['?', 'This list'],
    ];
</script>

<Dialog.Root bind:open>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-96 p-2">
            <Dialog.Title class="mb-3 text-lg font-semibold">Keyboard shortcuts</Dialog.Title>
            <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
                {#each keys as [key, what] (key)}<dt><span class="key">{key}</span></dt>
                    <dd>{what}</dd>{/each}
            </dl>
            <p class="mt-3 text-sm text-quiet">
                Shortcuts of one letter do nothing on a button, a link or a field. In <a
                    class="underline underline-offset-4"
                    href="#/settings?at=preferences"
                    onclick={() => (open = false)}>your preferences</a
                >
                they can be switched off. What the terms mean stands in the
                <a class="underline underline-offset-4" href="#/glossary" onclick={() => (open = false)}>glossary</a>.
            </p>
            <Dialog.Close class="act-quiet mt-4">Close</Dialog.Close>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
