<script lang="ts">
    import { createMutation, createQuery } from '@tanstack/svelte-query';
    import { intake } from '../../api/intake';
    import { api } from '../../api/jobs';
    import Notice from '../../parts/Notice.svelte';
    import { counted } from '../../parts/format';
    import type { Devices } from './devices.svelte';

    let { devices }: { devices: Devices } = $props();
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench, refetchInterval: 10_000 }));
    const plugged = $derived(
        (bench.data?.benches ?? [])
            .flatMap((b) => b.ports)
            .filter((p) => p.serial !== null && !p.byAir && p.jobId === null && p.mode === 'normal'),
    );
    const jobs = $derived(
        (bench.data?.open ?? []).filter((j) => j.intent !== 'back-up-only' && j.intent !== 'return-only'),
    );
    const preview = createMutation(() => ({
        mutationFn: (text: string) => intake.previewBatch(text),
        onSuccess: (seen) => (devices.good = seen.good),
        onError: () => (devices.good = null),
    }));
    const EXAMPLE = 'serial,modelName,version,goal\nSKL-0101,Fenn 7,9.3,newest in 8';
    const bad = $derived(preview.data === undefined ? 0 : preview.data.lines.length - preview.data.good);
    const all = () => {
        devices.serials = plugged.map((p) => p.serial ?? '');
        devices.jobs = jobs.map((j) => j.id);
    };
</script>

<div class="grid gap-4 @3xl:grid-cols-2">
    <fieldset class="max-h-72 overflow-auto">
        <legend class="mb-1 flex items-center gap-3"
            >Plugged in, or in a job already <button type="button" class="act-quiet !min-h-8 px-2" onclick={all}
                >All</button
            ></legend
        >
        {#if bench.data && plugged.length + jobs.length === 0}<p class="text-sm text-quiet">
                Nothing is plugged in that has no job, and no job is open. Use a table.
            </p>{/if}
        {#each plugged as p (p.serial)}<label class="flex min-h-9 items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    value={p.serial}
                    bind:group={devices.serials}
                /><span class="font-mono text-sm">{p.serial}</span>
                {p.modelName}<span class="text-sm text-quiet">port {p.label === '' ? p.port : p.label}</span></label
            >{/each}
        {#each jobs as j (j.id)}<label class="flex min-h-9 items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-5 w-5 accent-[var(--jade)]"
                    value={j.id}
                    bind:group={devices.jobs}
                /><span class="font-mono text-sm">{j.serial}</span>
                {j.variant ?? j.modelName}<span class="text-sm text-quiet">job {j.id}</span></label
            >{/each}
    </fieldset>
    <div class="flex flex-col gap-3">
        <label class="flex flex-col gap-1"
            >Goal of those that are taken in now; empty: the newest of the major before<input
                class="field"
                name="goal"
                placeholder="newest in 8"
                bind:value={devices.goal}
            /></label
        >
        <label class="flex flex-col gap-1"
            >Devices that are brought later, as a table<textarea
                class="field h-28 py-2 font-mono text-sm"
                spellcheck="false"
                placeholder={EXAMPLE}
                name="csv"
                bind:value={devices.csv}
                onchange={() => devices.csv.trim() !== '' && preview.mutate(devices.csv)}></textarea></label
        >
        <div aria-live="polite" class="text-sm">
            {#if preview.isError}<Notice tone="amber">{preview.error.message}</Notice>
            {:else if preview.data && devices.csv.trim() !== ''}
                <p>{counted(preview.data.good, 'good line')}{bad > 0 ? `, ${bad} that cannot be used:` : '.'}</p>
                <ul>
                    {#each preview.data.lines.filter((l) => l.faults.length > 0) as l (l.line)}<li class="text-amber">
                            line {l.line}: {l.faults[0]}
                        </li>{/each}
                </ul>
            {/if}
        </div>
    </div>
</div>
