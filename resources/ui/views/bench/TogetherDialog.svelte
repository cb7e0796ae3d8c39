<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { Dialog, Tabs } from 'bits-ui';
    import type { JobSummary, Port } from '../../api/types';
    import { counted } from '../../parts/format';
    import { notices } from '../../shell/notices.svelte';
    import AttestTogether from './AttestTogether.svelte';
    import RouteTogether from './RouteTogether.svelte';
    import { takeInAll, type Outcome } from './together.svelte';

    /** `at` is the page that is open: take-in, route or attest; empty where none is. */
    let { at = $bindable(''), ports, jobs }: { at: string; ports: Port[]; jobs: JobSummary[] } = $props();
    const queries = useQueryClient();
    let left = $state<string[]>([]);
    let failed = $state<Outcome[]>([]);
    const taken = $derived(ports.filter((p) => !left.includes(p.serial ?? '')));
    const choosing = $derived(jobs.filter((j) => j.position === 'choosing' && j.place !== null));
    const unsworn = $derived(jobs.filter((j) => j.now.act === 'attest'));
    $effect(() => {
        if (at === '') {
            left = [];
            failed = [];
        }
    });
    const take = createMutation(() => ({
        mutationFn: () => takeInAll(taken),
        onSuccess: (all) => done(all, 'taken in', true),
    }));
    function done(all: Outcome[], what: string, whole: boolean) {
        failed = all.filter((o) => o.words !== null);
        const good = all.length - failed.length;
        if (good > 0) notices.success(`${counted(good, 'device')} ${what}.`);
        void queries.invalidateQueries({ queryKey: ['bench'] });
        void queries.invalidateQueries({ queryKey: ['job'] });
        if (whole && failed.length === 0) at = '';
    }
    const onRoute = (all: Outcome[]) => done(all, 'put on the route', all.length === choosing.length);
    const tab = 'rounded px-3 py-1.5 data-[state=active]:bg-panel data-[state=active]:font-semibold min-h-11';
</script>

<Dialog.Root open={at !== ''} onOpenChange={(is) => (at = is ? at : '')}>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-[56rem]" data-together={at}>
            <Dialog.Title class="text-lg font-semibold">Several at once</Dialog.Title>
            <Dialog.Description class="sr-only">One act for several devices.</Dialog.Description>
            <Tabs.Root bind:value={at}>
                <Tabs.List class="my-3 inline-flex flex-wrap gap-1 rounded-md bg-sunken p-1" aria-label="What to do">
                    <Tabs.Trigger value="take-in" class={tab}>Take in ({ports.length})</Tabs.Trigger>
                    <Tabs.Trigger value="route" class={tab}>One route ({choosing.length})</Tabs.Trigger>
                    <Tabs.Trigger value="attest" class={tab}>Attest ({unsworn.length})</Tabs.Trigger>
                </Tabs.List>
                <Tabs.Content value="take-in">
                    {#if ports.length === 0}<p class="text-quiet">No device is plugged in that is in no job.</p>
                    {:else}
                        <p class="mb-2 text-sm text-quiet">Each is read first; nothing on them changes.</p>
                        <div class="grid gap-x-4 sm:grid-cols-2">
                            {#each ports as p (p.serial)}<label class="flex min-h-11 items-center gap-3"
                                    ><input
                                        type="checkbox"
                                        class="h-6 w-6 accent-[var(--jade)]"
                                        checked={!left.includes(p.serial ?? '')}
                                        onchange={(e) =>
                                            (left = e.currentTarget.checked
                                                ? left.filter((s) => s !== p.serial)
                                                : [...left, p.serial ?? ''])}
                                    /><span class="font-mono text-lg">{p.port}</span><span
                                        >{p.modelName} <span class="code">{p.serial}</span></span
                                    ></label
                                >{/each}
                        </div>
                        <button
                            class="act mt-3"
                            disabled={take.isPending || taken.length === 0}
                            onclick={() => take.mutate()}
                            >{take.isPending
                                ? 'Taking in…'
                                : taken.length === ports.length
                                  ? `Take in all ${taken.length}`
                                  : `Take in these ${taken.length}`}</button
                        >
                    {/if}
                </Tabs.Content>
                <Tabs.Content value="route"><RouteTogether jobs={choosing} ondone={onRoute} /></Tabs.Content>
                <Tabs.Content value="attest"
                    ><AttestTogether jobs={unsworn} ondone={(all) => done(all, 'checked', true)} /></Tabs.Content
                >
            </Tabs.Root>
            {#each failed as f (f.serial)}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                    <span class="font-mono">{f.serial}</span>: {f.words}
                </p>{/each}
            <div class="mt-4 flex justify-end"><Dialog.Close class="act-quiet">Close</Dialog.Close></div>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
