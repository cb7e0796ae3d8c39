<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { Dialog } from 'bits-ui';
    import { push } from 'svelte-spa-router';
    import { notices } from '../../shell/notices.svelte';
    import { api } from '../../api/jobs';
    import type { Port } from '../../api/types';
    import { counted } from '../../parts/format';

    /** `first` are the serials that are marked at first; null where nothing is shown. */
    let { first = $bindable(), ports }: { first: string[] | null; ports: Port[] } = $props();

    let chosen = $state<string[]>([]);
    let encryption = $state<'plain' | 'encrypted'>('plain');
    let name = $state('');
    let failed = $state<{ serial: string; words: string }[]>([]);
    $effect(() => {
        if (first === null) return;
        chosen = [...first];
        name = '';
        failed = [];
    });
    const queries = useQueryClient();
    const begin = createMutation(() => ({
        mutationFn: async () => {
            const opened: number[] = [];
            failed = [];
            const named = chosen.length === 1 ? name : null;
            for (const serial of [...chosen]) {
                try {
                    opened.push((await api.backUpOnly(serial, encryption, named)).id);
                    chosen = chosen.filter((s) => s !== serial);
                } catch (e) {
                    failed = [...failed, { serial, words: e instanceof Error ? e.message : String(e) }];
                }
            }
            return opened;
        },
        onSuccess: (opened) => {
            void queries.invalidateQueries({ queryKey: ['bench'] });
            if (failed.length > 0) return;
            first = null;
            if (opened.length === 1) void push(`/jobs/${opened[0]}`);
            else notices.success(`${counted(opened.length, 'backup')} begun.`);
        },
    }));
</script>

<Dialog.Root
    open={first !== null}
    onOpenChange={(open) => {
        if (!open) first = null;
    }}
>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-[46rem]">
            <Dialog.Title class="text-lg font-semibold">Back up only</Dialog.Title>
            <Dialog.Description class="mt-1 text-sm"
                >All of it is copied, read back and sealed. Nothing changes on the device.</Dialog.Description
            >
            <form
                class="mt-3 flex flex-col gap-4"
                onsubmit={(e) => {
                    e.preventDefault();
                    begin.mutate();
                }}
            >
                <fieldset>
                    <legend class="font-semibold">Devices</legend>
                    <div class="grid grid-cols-2 gap-x-4">
                        {#each ports as port (port.serial)}<label class="flex min-h-11 items-center gap-3"
                                ><input
                                    type="checkbox"
                                    class="h-6 w-6 accent-[var(--jade)]"
                                    value={port.serial}
                                    bind:group={chosen}
                                /><span
                                    >{port.modelName} <span class="code">{port.serial}</span>
                                    <span class="text-sm text-quiet"
                                        >port {port.port}{port.label ? `, ${port.label}` : ''}</span
                                    ></span
                                ></label
                            >{/each}
                    </div>
                </fieldset>
                <fieldset>
                    <legend class="font-semibold">How it is taken</legend>
                    <label class="flex min-h-11 items-center gap-3"
                        ><input
                            type="radio"
                            class="h-6 w-6 shrink-0 accent-[var(--jade)]"
                            value="plain"
                            bind:group={encryption}
                        />plain: saved passwords, health and pairings stay out</label
                    >
                    <label class="flex min-h-11 items-center gap-3"
                        ><input
                            type="radio"
                            class="h-6 w-6 shrink-0 accent-[var(--jade)]"
                            value="encrypted"
                            bind:group={encryption}
                        />encrypted: carries those too; each owner’s passphrase is asked for</label
                    >
                </fieldset>
                {#if chosen.length < 2}<label class="flex flex-col"
                        >Name<input
                            class="field"
                            maxlength="120"
                            placeholder="model, serial, version and time"
                            bind:value={name}
                        /></label
                    >{:else}<p class="text-sm text-quiet">
                        Each is named by its model, serial, version and time; it can be renamed on the Shelf.
                    </p>{/if}
                {#each failed as f (f.serial)}<p class="rounded-md bg-amber-wash p-2 text-amber" role="alert">
                        <span class="code">{f.serial}</span>: {f.words}
                    </p>{/each}
                <div class="flex justify-end gap-2">
                    <Dialog.Close class="act-quiet">Not now</Dialog.Close>
                    <button class="act" disabled={begin.isPending || chosen.length === 0}
                        >{chosen.length > 1 ? `Begin ${chosen.length} backups` : 'Begin the backup'}</button
                    >
                </div>
            </form>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
