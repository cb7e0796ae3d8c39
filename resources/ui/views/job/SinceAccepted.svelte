<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import Notice from '../../parts/Notice.svelte';
    import { dayAndClock } from '../../parts/format';
    import { jobAct } from './job.svelte';

    let { job, mayAct }: { job: Job; mayAct: boolean } = $props();
    const taken = $derived(job.route !== null);
    const since = createQuery(() => ({
        queryKey: ['since', job.id, job.flag?.at],
        queryFn: () => api.since(job.id),
        enabled: taken && !job.lineCrossed && job.state === 'open',
        refetchInterval: 60_000,
    }));
    const seen = jobAct(() => api.seen(job.id));
    const accepted = $derived(since.data?.accepted);
    const differences = $derived(since.data?.differences ?? []);
</script>

{#if accepted}
    <p class="text-sm text-quiet">
        Accepted by {accepted.by}, {dayAndClock(accepted.at)}{#if accepted.catalogue}, on {accepted.catalogue.vouched
                ? 'the vendor’s'
                : 'a file’s'} word of {dayAndClock(accepted.catalogue.issuedAt)}{/if}. {differences.length === 0
            ? 'Nothing differs now.'
            : ''}
    </p>
{/if}
{#if differences.length > 0}
    <Notice tone="amber"
        ><p class="font-semibold">What differs now from the plan that was accepted</p>
        <ul class="list-disc pl-5">
            {#each differences as d (d.words)}<li>{d.words} <span class="code !text-inherit">{d.code}</span></li>{/each}
        </ul></Notice
    >
{/if}
{#if job.flag !== null && job.state === 'open'}
    <Notice tone="amber">
        <div class="flex items-start gap-3">
            <div class="flex-1">
                <p class="font-semibold">
                    The almanac has changed, {dayAndClock(job.flag.at)}{taken ? '' : '; the plan was made again'}
                </p>
                <ul class="list-disc pl-5">
                    {#each job.flag.words as w (w)}<li>{w}</li>{/each}
                </ul>
            </div>
            {#if mayAct}<button class="act-quiet shrink-0 !text-ink" onclick={() => seen.mutate()}
                    >I have seen it</button
                >{/if}
        </div>
    </Notice>
{/if}
