<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { shelf } from '../../api/shelf';
    import type { Job } from '../../api/types';
    import { kindName } from '../../parts/format';

    /** Writes the kinds out that the plan or a person counts on, from the backup that this job has taken. */
    let { job }: { job: Job } = $props();
    const bag = $derived(job.bags.filter((b) => b.loweredFrom === null && b.state !== 'writing').at(-1));
    const kinds = $derived(job.exportsWanted);
    const encrypted = $derived(bag?.encryption === 'openpgp');
    let passphrase = $state('');
    const queries = useQueryClient();
    const out = createMutation(() => ({
        mutationFn: (from: string) => shelf.exportKinds(from, kinds, encrypted ? passphrase : null),
        onSuccess: () => {
            passphrase = '';
            notices.success('Written out. Keep the file with the job.');
            void queries.invalidateQueries({ queryKey: ['job', job.id] });
        },
    }));
</script>

{#if bag !== undefined && kinds.length > 0}
    <form
        class="mt-1 flex flex-wrap items-end gap-2"
        aria-label="Write out"
        onsubmit={(e) => {
            e.preventDefault();
            out.mutate(bag.id);
        }}
    >
        {#if encrypted}<label class="flex flex-1 flex-col text-sm"
                >Passphrase of the backup<input
                    class="field !min-h-10"
                    type="password"
                    autocomplete="off"
                    required
                    bind:value={passphrase}
                /></label
            >{/if}
        <button class="act-quiet" disabled={out.isPending || (encrypted && passphrase === '')}
            >{out.isPending ? 'Writing out…' : `Write ${kinds.map(kindName).join(', ')} out`}</button
        >
    </form>
    {#if out.isError}<p class="mt-1 rounded-md bg-amber-wash p-2 text-sm text-amber" role="alert">
            {out.error.message}
        </p>{/if}
{/if}
