<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api } from '../../api/jobs';
    import Notice from '../../parts/Notice.svelte';
    import PrintedLabel from '../../parts/PrintedLabel.svelte';

    let { params }: { params: { id: string } } = $props();
    const job = createQuery(() => ({
        queryKey: ['job', Number(params.id)],
        queryFn: () => api.job(Number(params.id)),
    }));
    const bench = createQuery(() => ({ queryKey: ['bench'], queryFn: api.bench }));
    const port = $derived(
        bench.data?.benches.flatMap((b) => b.ports).find((p) => p.jobId === Number(params.id)) ?? null,
    );
    const lines = $derived(
        [
            port === null ? 'not plugged in' : `port ${port.port}${port.label ? `, ${port.label}` : ''}`,
            `job ${params.id}`,
            job.data?.holder ?? '',
        ].filter((l) => l !== ''),
    );
</script>

<svelte:head><title>Label · Jade Step</title></svelte:head>
<div class="mb-3 flex items-center gap-3 print:hidden">
    <a class="act-quiet" href="#/jobs/{params.id}">Back to the job</a>
    {#if job.data}<button class="act" onclick={() => window.print()}>Print</button>{/if}
</div>
{#if job.data}<PrintedLabel code={job.data.serial} title={job.data.variant ?? job.data.modelName ?? 'Device'} {lines} />
{:else if job.isError}<Notice tone="amber">{job.error.message}</Notice>
{:else}<p class="text-quiet" role="status">Writing the label…</p>{/if}
