<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { Command, Dialog } from 'bits-ui';
    import { push } from 'svelte-spa-router';
    import { api } from '../api/jobs';
    import { scannable } from '../parts/scan';

    let { open = $bindable(false) }: { open: boolean } = $props();
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench, enabled: open }));
    const places = $derived([
        { label: 'Bench', path: '/' },
        { label: 'Take in a device that is not plugged in', path: '/take-in' },
        { label: 'Almanac', path: '/almanac' },
        { label: 'Shelf', path: '/shelf' },
        { label: 'Rig, for practice', path: '/rig' },
        { label: 'Journal', path: '/journal' },
        { label: 'Settings', path: '/settings' },
        ...(bench.data?.open ?? []).map((j) => ({
            label: `${j.serial} ${j.modelName ?? ''}: job ${j.id}`,
            path: `/jobs/${j.id}`,
        })),
        ...(bench.data?.ended ?? []).map((j) => ({
            label: `${j.serial} ${j.modelName ?? ''}: job ${j.id}, ended`,
            path: `/jobs/${j.id}`,
        })),
    ]);

    function go(path: string) {
        open = false;
        void push(path);
    }
</script>

<Dialog.Root bind:open>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel fixed top-24 left-1/2 z-30 w-[32rem] -translate-x-1/2 p-2">
            <Dialog.Title class="sr-only">Go to a job or a place</Dialog.Title>
            <Command.Root label="Go to">
                <Command.Input
                    class="field w-full"
                    placeholder="Serial, model or place, or a scanned label"
                    {@attach scannable(() => (open = false))}
                />
                <Command.List class="mt-2 max-h-80 overflow-auto">
                    <Command.Empty class="p-3 text-quiet">Nothing of that name.</Command.Empty>
                    {#each places as place (place.path)}
                        <Command.Item
                            value={place.label}
                            onSelect={() => go(place.path)}
                            class="cursor-pointer rounded-md px-3 py-2 data-selected:bg-jade-wash"
                            >{place.label}</Command.Item
                        >
                    {/each}
                </Command.List>
            </Command.Root>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
