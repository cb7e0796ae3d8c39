<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { install } from '../../api/install';
    import Ask from '../../parts/Ask.svelte';
    import { bytes, minutes, version } from '../../parts/format';
    import { watchPackages } from '../../parts/packages.svelte';
    import PackageFile from '../../parts/PackageFile.svelte';

    let { leads, mayAct }: { leads: boolean; mayAct: boolean } = $props();
    const GB = 1e9;
    const queries = useQueryClient();
    const held = watchPackages();
    const again = () => void queries.invalidateQueries({ queryKey: ['packages'] });
    type Draft = { bagsFolder: string; packagesFolder: string; bagsGb: number | null; packagesGb: number | null };
    let draft = $state<Draft | null>(null);
    const s = $derived(held.data?.storage);
    const whole = (gb: number | null) => (gb === null || Number.isNaN(gb) ? null : Math.round(gb * GB));
    const save = createMutation(() => ({
        mutationFn: (d: Draft) =>
            install.keepStorage({
                bagsFolder: d.bagsFolder,
                packagesFolder: d.packagesFolder,
                bagsBytes: whole(d.bagsGb),
                packagesBytes: whole(d.packagesGb),
            }),
        onSuccess: () => {
            draft = null;
            again();
        },
    }));
    const remove = createMutation(() => ({
        mutationFn: install.removePackage,
        onSettled: again,
        onError: (e: Error) => notices.refused(e),
    }));
    let leaving = $state<Held | null>(null);
    const limit = (n: number | null) => (n === null ? 'as much as the disk has' : `at most ${bytes(n)}`);
    const room = (used: number, most: number | null, free: number) =>
        `${bytes(used)} taken, ${limit(most)}, ${bytes(free)} free on its disk`;
    type Held = NonNullable<typeof held.data>['packages'][number];
    const fetched = (p: Held) =>
        [
            `${bytes(p.bytesDone)} fetched`,
            p.bytesPerSecond === null ? '' : `${bytes(p.bytesPerSecond)}/s`,
            p.secondsLeft === null ? '' : `${minutes(p.secondsLeft / 60)} left`,
        ]
            .filter((words) => words !== '')
            .join(', ');
</script>

<section class="panel" aria-labelledby="storage">
    <div class="mb-1 flex items-center gap-3">
        <h2 id="storage">Packages and bags</h2>
        {#if leads && s && draft === null}{@const now = s}<button
                class="act-quiet !min-h-9 ml-auto"
                onclick={() =>
                    (draft = {
                        bagsFolder: now.bagsFolder ?? '',
                        packagesFolder: now.packagesFolder ?? '',
                        bagsGb: now.bagsBytes === null ? null : now.bagsBytes / GB,
                        packagesGb: now.packagesBytes === null ? null : now.packagesBytes / GB,
                    })}>Change places and limits</button
            >{/if}
    </div>
    {#if s}
        <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
            <dt class="text-quiet">Bags</dt>
            <dd>
                {#if s.bagsFolder !== null}<span class="font-mono break-all">{`${s.bagsFolder}: `}</span>{/if}{bytes(
                    s.bagsUsed,
                )} taken, {limit(s.bagsBytes)}, {bytes(s.bagsFree)} free on its disk
            </dd>
            <dt class="text-quiet">Packages</dt>
            <dd>
                {#if s.packagesFolder !== null}<span class="font-mono break-all">{`${s.packagesFolder}: `}</span
                    >{/if}{room(s.packagesUsed, s.packagesBytes, s.packagesFree)}
            </dd>
        </dl>
    {/if}
    {#if draft !== null}{@const d = draft}
        <form
            class="mt-2 grid grid-cols-2 gap-3 border-t border-edge pt-3 text-sm"
            onsubmit={(e) => {
                e.preventDefault();
                save.mutate(d);
            }}
        >
            <label class="flex flex-col gap-1"
                >Folder for bags<input
                    class="field font-mono"
                    required
                    name="bagsFolder"
                    bind:value={d.bagsFolder}
                /></label
            ><label class="flex flex-col gap-1"
                >They may take, in GB; empty for all<input
                    class="field"
                    type="number"
                    min="0.01"
                    step="any"
                    name="bagsBytes"
                    bind:value={d.bagsGb}
                /></label
            >
            <label class="flex flex-col gap-1"
                >Folder for packages<input
                    class="field font-mono"
                    required
                    name="packagesFolder"
                    bind:value={d.packagesFolder}
                /></label
            ><label class="flex flex-col gap-1"
                >They may take, in GB; empty for all<input
                    class="field"
                    type="number"
                    min="0.01"
                    step="any"
                    name="packagesBytes"
                    bind:value={d.packagesGb}
                /></label
            >
            <p class="col-span-2 text-quiet">
                Nothing is moved from here: copy what lies in the old folder to the new one first. Packages that no job
                needs go by themselves when the limit is reached, the longest unused first.
            </p>
            {#if save.isError}<p class="col-span-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                    {save.error.message}
                </p>{/if}
            <div class="flex gap-2">
                <button class="act" disabled={save.isPending}>Save</button><button
                    class="act-quiet"
                    type="button"
                    onclick={() => (draft = null)}>Not now</button
                >
            </div>
        </form>
    {/if}
    {#if held.data && held.data.packages.length > 0}
        <table class="mt-3 w-full text-sm [&_td]:py-1">
            <thead class="text-left text-quiet"
                ><tr
                    ><th class="font-normal">Package</th><th class="font-normal">Build</th><th
                        class="text-right font-normal">Size</th
                    ><th class="pl-4 font-normal">State</th><th></th></tr
                ></thead
            >
            <tbody
                >{#each held.data.packages as p (p.sha256)}
                    <tr class="border-t border-edge" data-package={p.build}>
                        <td class="font-mono text-xs break-all">{p.fileName}</td><td
                            >{version(p.version)} <span class="font-mono">{p.build}</span></td
                        ><td class="text-right">{bytes(p.bytes)}</td>
                        <td class="pl-4 {p.problem !== null ? 'text-amber' : ''}"
                            >{p.problem !== null
                                ? p.problem.detail
                                : p.state === 'whole'
                                  ? `whole, from ${p.source === 'file' ? 'a file' : 'the vendor'}`
                                  : p.state === 'fetching'
                                    ? fetched(p)
                                    : 'to be fetched'}{p.jobs.length > 0 ? `; for job ${p.jobs.join(', ')}` : ''}</td
                        >
                        <td class="text-right"
                            >{#if mayAct && p.jobs.length === 0}<button
                                    class="act-quiet !min-h-8"
                                    disabled={remove.isPending}
                                    onclick={() => (leaving = p)}>Remove</button
                                >{/if}</td
                        >
                    </tr>{/each}</tbody
            >
        </table>
    {:else if held.data}<p class="mt-2 text-sm text-quiet">
            No package is held yet. Jobs fetch theirs by themselves; the Almanac can fetch one ahead.
        </p>{/if}
    {#if mayAct}<div class="mt-3 border-t border-edge pt-3"><PackageFile /></div>{/if}
    <Ask
        open={leaving !== null}
        title="Remove this package?"
        yes="Remove it"
        no="Keep it"
        onyes={() => leaving !== null && remove.mutate(leaving.sha256)}
        onno={() => (leaving = null)}>It is fetched again when a job needs it: {bytes(leaving?.bytes)}.</Ask
    >
</section>
