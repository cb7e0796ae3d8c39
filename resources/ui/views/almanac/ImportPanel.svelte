<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { Dialog } from 'bits-ui';
    import { notices } from '../../shell/notices.svelte';
    import { almanac } from '../../api/almanac';
    import type { HeldVendor } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { counted, dayAndClock } from '../../parts/format';

    let {
        open = $bindable(false),
        dropped = $bindable(null),
        vendors,
    }: { open: boolean; dropped?: File | null; vendors: HeldVendor[] } = $props();

    const queries = useQueryClient();
    let file = $state<{ text: string; fileName: string } | null>(null);
    let vendor = $state('');
    const isTable = $derived(
        file !== null && !file.text.trimStart().startsWith('{') && !/^[\w-]+\.[\w-]+\.[\w-]+\s*$/.test(file.text),
    );
    const body = () => ({ text: file?.text ?? '', fileName: file?.fileName ?? '', vendor: isTable ? vendor : null });
    const preview = createMutation(() => ({ mutationFn: () => almanac.preview(body()) }));
    const take = createMutation(() => ({
        mutationFn: () => almanac.take(body()),
        onSuccess: ({ changes }) => {
            notices.success(
                changes === 1 ? 'Taken in; one thing has changed.' : `Taken in; ${changes} things have changed.`,
            );
            open = false;
            void queries.invalidateQueries({ queryKey: ['almanac'] });
        },
    }));
    const seen = $derived(preview.data);

    $effect(() => {
        const brought = dropped;
        if (!open || brought === null) return;
        dropped = null;
        void read(brought);
    });
    const choose = (event: Event & { currentTarget: HTMLInputElement }) => read(event.currentTarget.files?.[0]);
    async function read(chosen: File | undefined) {
        take.reset();
        preview.reset();
        file = chosen === undefined ? null : { text: await chosen.text(), fileName: chosen.name };
        if (file !== null && (!isTable || vendor !== '')) preview.mutate();
    }
    function whose(event: Event & { currentTarget: HTMLSelectElement }) {
        vendor = event.currentTarget.value;
        if (file !== null) preview.mutate();
    }
    const goodUntil = $derived(`good until ${dayAndClock(seen?.freshUntil ?? '')}`);
</script>

<Dialog.Root
    bind:open
    onOpenChange={(now) => {
        if (now) {
            file = null;
            preview.reset();
            take.reset();
        }
    }}
>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-[44rem]">
            <Dialog.Title class="text-lg font-semibold">Take in from a file</Dialog.Title>
            <Dialog.Description class="mb-3 text-sm text-quiet">
                A catalogue as JSON, a signed catalogue, or builds as CSV with the columns of the download. What is not
                signed is marked as not vouched for. Nothing is stored before you have seen what it changes.
            </Dialog.Description>
            {#if file !== null}<p class="mb-2 font-mono text-sm">{file.fileName}</p>{/if}<label
                class="flex flex-col gap-1"
                >File<input class="field py-2" type="file" accept=".json,.csv,.jws,.txt" onchange={choose} /></label
            >
            {#if isTable}
                <label class="mt-3 flex flex-col gap-1"
                    >Whose builds are these?<select class="field" value={vendor} onchange={whose}
                        ><option value="" disabled>choose a vendor</option
                        >{#each vendors.filter((v) => v.held !== null) as v (v.id)}<option value={v.id}>{v.name}</option
                            >{/each}</select
                    ></label
                >
            {/if}
            <div class="mt-3" aria-live="polite">
                {#if preview.isPending}<p class="text-quiet">Reading the file…</p>
                {:else if preview.isError}<Notice tone="amber">{preview.error.message}</Notice>
                {:else if seen}
                    {#if seen.faults.length > 0}
                        <Notice tone="amber"
                            ><strong>{counted(seen.faults.length, 'line')} cannot be used: nothing is taken.</strong
                            ></Notice
                        >
                        <ul class="mt-2 max-h-60 overflow-auto text-sm">
                            {#each seen.faults as f, i (i)}<li class="border-t border-edge py-1">
                                    <span class="font-mono">line {f.line}</span>
                                    {f.message}
                                </li>{/each}
                        </ul>
                    {:else}
                        <p>
                            <strong>{seen.vendorName}</strong>, issued {dayAndClock(seen.issuedAt ?? '')}, {goodUntil}:
                            {seen.models} models, {seen.builds} builds. {seen.vouched
                                ? 'Its signature holds.'
                                : 'Not vouched for.'}
                        </p>
                        {#if !seen.counts}<div class="mt-2">
                                <Notice tone="amber"
                                    >A later issue is held already: this one would be kept, but does not count.</Notice
                                >
                            </div>{/if}
                        <h3 class="mt-3 text-sm font-semibold">What it changes</h3>
                        <ul class="max-h-60 overflow-auto text-sm">
                            {#each seen.changes as c (c)}<li class="border-t border-edge py-1">{c}</li>{:else}<li
                                    class="text-quiet"
                                >
                                    Nothing.
                                </li>{/each}{#if seen.moreChanges > 0}<li class="text-quiet">
                                    and {seen.moreChanges} more
                                </li>{/if}
                        </ul>
                    {/if}
                {/if}
                {#if take.isError}<div class="mt-2"><Notice tone="amber">{take.error.message}</Notice></div>{/if}
            </div>
            <div class="mt-4 flex gap-3">
                <button
                    class="act"
                    disabled={!seen || seen.faults.length > 0 || take.isPending}
                    onclick={() => take.mutate()}>Take it in</button
                >
                <Dialog.Close class="act-quiet">Not now</Dialog.Close>
            </div>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
