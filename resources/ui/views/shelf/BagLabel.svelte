<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import { dayAndClock, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import PrintedLabel from '../../parts/PrintedLabel.svelte';

    let { params }: { params: { bag: string } } = $props();
    const id = $derived(decodeURIComponent(params.bag));
    const held = createQuery(() => ({ queryKey: ['shelf', id], queryFn: () => shelf.bag(id) }));
    const bag = $derived(held.data?.bag);
</script>

<svelte:head><title>Label · Jade Step</title></svelte:head>
<div class="mb-3 flex items-center gap-3 print:hidden">
    <a class="act-quiet" href="#/shelf/{encodeURIComponent(id)}">Back to the bag</a>
    {#if bag}<button class="act" onclick={() => window.print()}>Print</button>{/if}
</div>
{#if bag}<PrintedLabel
        code={bag.id}
        title={bag.label}
        lines={[
            bag.serial,
            `${dayAndClock(bag.takenAt)}, from ${version(bag.madeOn)}`,
            bag.encryption === 'openpgp' ? 'encrypted' : 'plain',
        ]}
    />
{:else if held.isError}<Notice tone="amber">{held.error.message}</Notice>
{:else}<p class="text-quiet" role="status">Writing the label…</p>{/if}
