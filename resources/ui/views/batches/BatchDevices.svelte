<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { batches, documentAddress } from '../../api/batches';
    import type { Batch } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { between, inHundred, moment } from './words';

    let { batch, mayAct }: { batch: Batch; mayAct: boolean } = $props();
    const queries = useQueryClient();
    const scheduled = $derived(new Map((batch.schedule?.devices ?? []).map((d) => [d.id, d])));
    const unplanned = $derived(new Map((batch.schedule?.unplanned ?? []).map((u) => [u.id, u.why])));
    const take = createMutation(() => ({
        mutationFn: (job: number) => batches.take(batch.id, job),
        onSuccess: () => {
            notices.success('Taken out of the batch. Its job stays open.');
            void queries.invalidateQueries({ queryKey: ['batch', batch.id] });
        },
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<section class="panel">
    {#if batch.jobs.length === 0}<Notice>No device is in this batch. Put some in under Settings.</Notice>
    {:else}
        <div class="overflow-x-auto">
            <table class="w-full text-sm">
                <thead
                    ><tr class="text-left text-quiet">
                        <th class="py-1 pr-3 font-normal">Device</th>
                        <th class="pr-3 font-normal">Port</th>
                        <th class="pr-3 font-normal">Begins</th>
                        <th class="pr-3 font-normal">Done, as expected</th>
                        <th class="pr-3 font-normal">In 90 of 100</th>
                        <th class="pr-3 font-normal">In time</th>
                        <th></th>
                    </tr></thead
                >
                <tbody>
                    {#each batch.jobs as job (job.id)}{@const d = scheduled.get(String(job.id))}
                        <tr class="border-t border-edge align-top" data-device={job.serial}>
                            <td class="py-1.5 pr-3"
                                ><a class="link font-mono" href="#/jobs/{job.id}">{job.serial}</a>
                                <span class="block text-quiet"
                                    >{job.label}{job.holder === '' ? '' : `, ${job.holder}`}{job.assumed
                                        ? '; not read yet: taken to hold what others of its model did'
                                        : ''}</span
                                ></td
                            >
                            {#if !job.isOpen}<td colspan="5" class="text-quiet"
                                    >ended{job.endedAt === null ? '' : ` ${moment(job.endedAt)}`}</td
                                >
                            {:else if d !== undefined}
                                <td class="pr-3">{d.port === null ? '–' : batch.portNames[d.port - 1]}</td>
                                <td class="pr-3 whitespace-nowrap">{moment(d.startsAt)}</td>
                                <td class="pr-3 whitespace-nowrap">{moment(d.finishesAt)}</td>
                                <td class="pr-3 whitespace-nowrap">{between(d.finish.from, d.finish.until)}</td>
                                <td class="pr-3 {d.late === null ? '' : 'text-amber'}"
                                    >{batch.deadline === null && d.late === null
                                        ? 'no deadline'
                                        : inHundred(d.chance)}{#if d.late !== null}<span class="block"
                                            >{d.late.words}</span
                                        >{/if}</td
                                >
                            {:else}<td colspan="5" class="text-amber"
                                    >{unplanned.get(String(job.id)) ?? 'Not scheduled yet.'}</td
                                >{/if}
                            <td class="text-right"
                                >{#if mayAct && job.isOpen}<button
                                        class="act-quiet !min-h-9 whitespace-nowrap"
                                        disabled={take.isPending}
                                        onclick={() => take.mutate(job.id)}
                                        aria-label="Take out: {job.serial}">Take out</button
                                    >{/if}</td
                            >
                        </tr>{/each}
                </tbody>
            </table>
        </div>
        <p class="mt-3 text-sm">
            <a class="link" href={documentAddress(batch.id)} download="batch-{batch.id}.json">As a document</a>
            <span class="text-quiet"
                >for <span class="font-mono">bin/jade batch</span>, which gives the same answer.</span
            >
        </p>
    {/if}
</section>
