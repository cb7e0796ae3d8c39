<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { shelf } from '../../api/shelf';
    import { dayAndClock } from '../../parts/format';

    /** By what it says of itself (RFC 9110, 10.1.5): the machine in its first comment, or else its first product. */
    function agentWords(agent: string): string {
        const machine = /\(([^)]+)\)/.exec(agent)?.[1]?.split(/;\s*/).slice(0, 2).join(', ');
        return machine !== undefined ? `a browser on ${machine}` : agent.split(/[/ ]/)[0] || 'a program';
    }

    const queries = useQueryClient();
    const sessions = createQuery(() => ({ queryKey: ['sessions'], queryFn: shelf.sessions }));
    const end = createMutation(() => ({
        mutationFn: shelf.endSession,
        onSuccess: () => void queries.invalidateQueries({ queryKey: ['sessions'] }),
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<section class="panel" aria-labelledby="sessions">
    <h2 id="sessions" class="mb-1">Where you are signed in</h2>
    <ul class="text-sm">
        {#each sessions.data?.sessions ?? [] as s (s.id)}
            <li class="flex items-center gap-3 border-t border-edge py-1.5">
                <span class="flex-1"
                    >{agentWords(s.browser)}
                    <span class="text-quiet" title={s.browser}>from {s.address ?? 'an unknown address'}</span></span
                ><span class="text-quiet">{s.current ? 'here, now' : `last seen ${dayAndClock(s.lastSeenAt)}`}</span
                >{#if !s.current}<button class="act-quiet !min-h-8" onclick={() => end.mutate(s.id)}>End it</button
                    >{/if}
            </li>
        {/each}
    </ul>
</section>
