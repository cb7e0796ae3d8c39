<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { install } from '../../api/install';
    import type { BenchEntry } from '../../api/types';
    import Ask from '../../parts/Ask.svelte';
    import { bytes, minutes } from '../../parts/format';

    let { leads }: { leads: boolean } = $props();
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['benches'], queryFn: install.benches }));
    const again = () =>
        void Promise.all([
            queries.invalidateQueries({ queryKey: ['benches'] }),
            queries.invalidateQueries({ queryKey: ['bench'] }),
        ]);
    type Draft = { id: number | null; name: string; linkAddress: string; ports: string };
    let draft = $state<Draft | null>(null);
    // one port a line: its name on the link, and after a colon the label that it bears here
    const asText = (b: BenchEntry) =>
        b.ports.map((p) => (p.label === '' ? p.port : `${p.port}: ${p.label}`)).join('\n');
    const asPorts = (text: string) =>
        text
            .split('\n')
            .map((l) => l.trim())
            .filter((l) => l !== '')
            .map((l) => {
                const [port, ...label] = l.split(':');
                return { port: (port ?? '').trim(), label: label.join(':').trim() || null };
            });
    const save = createMutation(() => ({
        mutationFn: (d: Draft) =>
            install.keepBench(d.id, {
                name: d.name.trim(),
                linkAddress: d.linkAddress.trim() === '' ? null : d.linkAddress.trim(),
                ports: asPorts(d.ports),
            }),
        onSuccess: () => {
            draft = null;
            again();
        },
    }));
    const remove = createMutation(() => ({
        mutationFn: install.removeBench,
        onSuccess: again,
        onError: (e: Error) => notices.refused(e),
    }));
    let leaving = $state<BenchEntry | null>(null);
    const figures: [keyof BenchEntry['measured'] & string, string, string][] = [
        ['linkBytesPerSecond', 'link', 'download'],
        ['backupBytesPerSecond', 'backup', 'backup'],
        ['returnBytesPerSecond', 'return', 'return'],
        ['installMinutes', 'install', 'install'],
    ];
    type Spread = { low: number; likely: number; high: number };
    function figure(b: BenchEntry, field: string, what: string): string {
        const own = b.measured[field] as Spread | undefined;
        const many = b.measurements[what] ?? 0;
        if (own === undefined) return `usual figure; ${many} of 3 measurements`;
        return field === 'installMinutes'
            ? `${minutes(own.likely)} (${minutes(own.low)} to ${minutes(own.high)}), ${many} measured`
            : `${bytes(own.likely)}/s (${bytes(own.low)} to ${bytes(own.high)}), ${many} measured`;
    }
</script>

<section class="panel" aria-labelledby="benches">
    <div class="mb-1 flex items-center gap-3">
        <h2 id="benches">Benches</h2>
        {#if leads && draft === null}<button
                class="act-quiet !min-h-9 ml-auto"
                onclick={() => (draft = { id: null, name: '', linkAddress: '', ports: '1\n2\n3\n4' })}
                >Add a bench</button
            >{/if}
    </div>
    {#each held.data?.benches ?? [] as b (b.id)}
        <div
            class="grid grid-cols-[1fr_1.3fr_auto] items-start gap-4 border-t border-edge py-2 text-sm"
            data-bench={b.id}
        >
            <div>
                <p class="text-base font-semibold">{b.name}</p>
                <p>device link <span class="font-mono">{b.address}</span></p>
                <p class="text-quiet">
                    {b.ports.length === 0
                        ? 'no ports named; those that the link tells of are shown'
                        : `ports ${b.ports.map((p) => p.port).join(', ')}`}
                </p>
            </div>
            <dl class="grid grid-cols-[auto_1fr] gap-x-3">
                {#each figures as [field, what, name] (field)}<dt class="text-quiet">{name}</dt>
                    <dd>{figure(b, field, what)}</dd>{/each}
            </dl>
            {#if leads}<div class="flex gap-2">
                    <button
                        class="act-quiet !min-h-9"
                        onclick={() =>
                            (draft = { id: b.id, name: b.name, linkAddress: b.linkAddress ?? '', ports: asText(b) })}
                        >Change</button
                    ><button class="act-quiet !min-h-9" onclick={() => (leaving = b)}>Remove</button>
                </div>{/if}
        </div>
    {/each}
    {#if draft !== null}{@const d = draft}
        <form
            class="mt-2 grid grid-cols-[1fr_1.3fr_1fr_auto] items-end gap-3 border-t border-edge pt-3 text-sm"
            onsubmit={(e) => {
                e.preventDefault();
                save.mutate(d);
            }}
        >
            <label class="flex flex-col gap-1"
                >Name<input class="field" name="name" required maxlength="100" bind:value={d.name} /></label
            >
            <label class="flex flex-col gap-1"
                >Address of its device link; empty for this computer’s own<input
                    class="field font-mono"
                    type="url"
                    placeholder="http://…"
                    name="linkAddress"
                    bind:value={d.linkAddress}
                /></label
            >
            <label class="flex flex-col gap-1"
                >Ports, one a line, “name: label”<textarea
                    class="field min-h-24 py-2 font-mono"
                    rows="4"
                    name="ports"
                    bind:value={d.ports}></textarea></label
            >
            <div class="flex gap-2">
                <button class="act" disabled={save.isPending}>Save</button><button
                    class="act-quiet"
                    type="button"
                    onclick={() => (draft = null)}>Not now</button
                >
            </div>
            {#if save.isError}<p class="col-span-4 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                    {save.error.message}
                </p>{/if}
        </form>
    {/if}
    <Ask
        open={leaving !== null}
        title="Remove {leaving?.name ?? ''}?"
        yes="Remove this bench"
        no="Keep it"
        onyes={() => leaving !== null && remove.mutate(leaving.id)}
        onno={() => (leaving = null)}>Its devices are not seen any more from here. What it measured goes with it.</Ask
    >
</section>
