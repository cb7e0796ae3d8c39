<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { install } from '../../api/install';
    import { bytes, minutes } from '../../parts/format';
    import { watchPackages } from '../../parts/packages.svelte';
    import { session } from '../../shell/session.svelte';

    let { sha256 }: { sha256: string } = $props();
    const queries = useQueryClient();
    const held = watchPackages();
    const p = $derived(held.data?.packages.find((x) => x.sha256 === sha256));
    const fetch = createMutation(() => ({
        mutationFn: () => install.fetchPackage(sha256),
        onSettled: () => queries.invalidateQueries({ queryKey: ['packages'] }),
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<span class="block text-sm" aria-live="polite">
    {#if p?.state === 'whole'}On this bench, whole.
    {:else if p?.state === 'fetching' || (p?.state === 'wanted' && p.problem === null)}{bytes(p.bytesDone)} of {bytes(
            p.bytes,
        )} fetched{p.bytesPerSecond === null ? '' : `, ${bytes(p.bytesPerSecond)}/s`}{p.secondsLeft === null
            ? ''
            : `, ${minutes(p.secondsLeft / 60)} left`}
    {:else}{#if p?.problem}<span class="block text-amber">{p.problem.detail}</span>{/if}{#if session.mayAct}<button
                class="act-quiet mt-1 !min-h-9"
                disabled={fetch.isPending}
                onclick={() => fetch.mutate()}>Fetch it ahead</button
            >{/if}{/if}
</span>
