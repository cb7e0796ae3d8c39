<script lang="ts">
    import { createMutation, createQueries } from '@tanstack/svelte-query';
    import { api } from '../../api/jobs';
    import type { JobSummary } from '../../api/types';
    import { checkName, unchecked } from '../../parts/checks';
    import Notice from '../../parts/Notice.svelte';
    import { attestAll, type Outcome } from './together.svelte';

    /** Gives one's word for several devices at once, with what is vouched for named beside each. */
    let { jobs, ondone }: { jobs: JobSummary[]; ondone: (all: Outcome[]) => void } = $props();
    const told = createQueries(() => ({
        queries: jobs.map((j) => ({ queryKey: ['job', j.id], queryFn: () => api.job(j.id) })),
    }));
    const whole = $derived(told.flatMap((q) => (q.data === undefined ? [] : [q.data])));
    let left = $state<number[]>([]);
    const those = $derived(whole.filter((j) => !left.includes(j.id) && unchecked(j).length > 0));
    const attest = createMutation(() => ({ mutationFn: () => attestAll(those), onSuccess: ondone }));
</script>

{#if jobs.length === 0}<Notice>Nobody’s word is wanted now.</Notice>
{:else}
    <p class="mb-2 text-sm text-quiet">
        No machine can read these. Your name stands beside each, and it can be taken back in the job.
    </p>
    <ul>
        {#each whole as j (j.id)}<li class="border-t border-edge">
                <label class="flex min-h-11 items-center gap-3"
                    ><input
                        type="checkbox"
                        class="h-6 w-6 accent-[var(--jade)]"
                        checked={!left.includes(j.id)}
                        onchange={(e) =>
                            (left = e.currentTarget.checked ? left.filter((id) => id !== j.id) : [...left, j.id])}
                    /><span class="font-mono text-lg">{j.place?.port ?? ''}</span><span class="flex-1"
                        >{j.variant ?? j.modelName} <span class="code">{j.serial}</span>
                        {j.holder}</span
                    ><span class="text-sm">{unchecked(j).map(checkName).join(', ')}</span></label
                >
            </li>{/each}
    </ul>
    <button class="act mt-3" disabled={attest.isPending || those.length === 0} onclick={() => attest.mutate()}
        >{attest.isPending ? 'Noting it…' : `I have checked all of these ${those.length}`}</button
    >
{/if}
