<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { intake } from '../../api/intake';
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { version } from '../../parts/format';
    import IdentityPanel from '../intake/IdentityPanel.svelte';
    import { SaidDevice } from '../intake/said.svelte';
    import SaidFields from '../intake/SaidFields.svelte';
    import { jobAct } from './job.svelte';

    let { job, mayAct }: { job: Job; mayAct: boolean } = $props();
    const device = new SaidDevice(untrack(() => job.said));
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench, refetchInterval: 3000 }));
    const free = $derived(
        (bench.data?.benches.flatMap((b) => b.ports) ?? []).filter((p) => p.serial !== null && p.jobId === null),
    );
    const correct = jobAct(() => intake.correct(job.id, device.said));
    const attach = jobAct((serial: string) => intake.attach(job.id, serial));
</script>

<div class="grid items-start gap-4 @4xl:grid-cols-[1.4fr_1fr]">
    <form
        class="panel flex flex-col gap-4"
        onsubmit={(e) => {
            e.preventDefault();
            correct.mutate();
        }}
    >
        <h2>What {job.said?.by} was told</h2>
        <SaidFields {device} />
        {#if correct.isError}<Notice tone="amber">{correct.error.message}</Notice>{/if}
        {#if mayAct}<button class="act self-start" disabled={correct.isPending}
                >{correct.isPending ? 'Planning again…' : 'Keep this and plan again'}</button
            >{/if}
    </form>
    <div class="flex flex-col gap-4">
        <section class="panel" aria-labelledby="which">
            <h2 id="which" class="mb-2">Which one it is</h2>
            <IdentityPanel {device} />
        </section>
        <section class="panel" aria-labelledby="plugged">
            <h2 id="plugged" class="mb-2">When it is here</h2>
            <p class="text-sm">
                Plug it in and unlock it. By its serial or IMEI it is known again, and the job goes on by itself; what
                differs from what was said is shown then.
            </p>
            {#if mayAct && free.length > 0}
                <p class="mt-3 text-sm text-quiet">Is it one of these?</p>
                <ul>
                    {#each free as p (p.port)}<li class="flex items-center gap-2 border-t border-edge py-1.5 text-sm">
                            <span class="flex-1"
                                >{p.modelName} <span class="code">{p.serial}</span> {version(p.version ?? '')}</span
                            ><button
                                class="act-quiet !min-h-8"
                                disabled={attach.isPending}
                                onclick={() => attach.mutate(p.serial ?? '')}>This one</button
                            >
                        </li>{/each}
                </ul>
            {/if}
        </section>
    </div>
</div>
