<script lang="ts">
    import { Plus } from '@lucide/svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { batches } from '../../api/batches';
    import type { BatchSummary } from '../../api/types';
    import { counted } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import Term from '../../parts/Term.svelte';
    import { session } from '../../shell/session.svelte';
    import { answer, lateWords, moment } from './words';

    const held = createQuery(() => ({ queryKey: ['batches'], queryFn: batches.all, refetchInterval: 10_000 }));
    const people = (b: BatchSummary) =>
        `${counted(b.workshop.ports, 'port')}, ${counted(b.workshop.technicians.length, 'technician')}`;
</script>

<svelte:head><title>Batches · Jade Step</title></svelte:head>
<div class="mb-3 flex flex-wrap items-center gap-4">
    <h1><Term of="batch">Batches</Term></h1>
    <p class="text-quiet">
        Several devices by a deadline: whether they make it, how sure that is, and what would help.
    </p>
    {#if session.mayAct}<a class="act ml-auto" href="#/batches/new"
            ><Plus size="1.15em" aria-hidden="true" />Make a batch</a
        >{/if}
</div>
{#if held.isPending}<p class="text-quiet" role="status">Reading the batches…</p>
{:else if !held.data}<Notice tone="amber">{held.error?.message}</Notice>
{:else}
    {#if held.data.open.length === 0}<Notice
            >No batch is open. {session.mayAct
                ? 'Make one of what is plugged in, or of a table, and the schedule is worked out.'
                : 'A technician makes one.'}</Notice
        >{/if}
    <ul class="flex flex-col gap-3">
        {#each held.data.open as b (b.id)}<li>
                <a
                    href="#/batches/{b.id}"
                    class="panel grid gap-x-6 gap-y-1 hover:border-jade @4xl:grid-cols-[16rem_1fr_auto]"
                    data-batch={b.id}
                >
                    <span
                        ><strong class="block text-lg">{b.name}</strong><span class="text-sm text-quiet"
                            >{people(b)}</span
                        ></span
                    >
                    <span class="self-center">{answer(b)}</span>
                    <span class="self-center text-right text-sm {lateWords(b) === '' ? 'text-quiet' : 'text-amber'}"
                        >{lateWords(b) || 'none late'}<span class="block text-quiet"
                            >{b.devices - b.open} of {b.devices} done</span
                        ></span
                    >
                </a>
            </li>{/each}
    </ul>
    {#if held.data.ended.length > 0}
        <h2 class="mt-6 mb-2">Ended</h2>
        <ul class="text-sm">
            {#each held.data.ended as b (b.id)}<li class="border-t border-edge py-1.5">
                    <a class="link" href="#/batches/{b.id}">{b.name}</a>
                    <span class="text-quiet"
                        >{counted(b.devices, 'device')}, ended {moment(b.endedAt ?? b.startsAt)}</span
                    >
                </li>{/each}
        </ul>
    {/if}
{/if}
