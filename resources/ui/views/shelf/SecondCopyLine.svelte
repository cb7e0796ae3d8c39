<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import type { Bag, SecondCopy } from '../../api/types';
    import { dayAndClock } from '../../parts/format';
    import { notices } from '../../shell/notices.svelte';
    import { COPY_STATE } from './copies';

    let { bag, copy, mayAct }: { bag: Bag; copy: SecondCopy; mayAct: boolean } = $props();
    const queries = useQueryClient();
    const back = createMutation(() => ({
        mutationFn: () => shelf.fetchBack(bag.id),
        onSuccess: () => void queries.invalidateQueries({ queryKey: ['shelf'] }),
        onError: (e: Error) => notices.refused(e),
    }));
    const far = $derived(copy.progress === null ? '' : ` ${Math.round(copy.progress * 100)} %`);
</script>

<span class="first-letter:uppercase" data-second-copy={copy.state}
    >{copy.state === 'there' && copy.readBackAt !== null
        ? `every byte read back there, ${dayAndClock(copy.readBackAt)}`
        : `${COPY_STATE[copy.state]}${far}`}</span
>
{#if copy.problem !== null}<p class="mt-1 rounded-md bg-amber-wash p-2 text-amber">
        {copy.problem.detail}{copy.notBefore !== null ? ` Next try ${dayAndClock(copy.notBefore)}.` : ''}
    </p>{/if}
{#if mayAct && bag.state === 'damaged' && copy.readBackAt !== null && copy.state !== 'returning'}<button
        class="act mt-2"
        disabled={back.isPending}
        onclick={() => back.mutate()}>Fetch it back from there</button
    >{/if}
