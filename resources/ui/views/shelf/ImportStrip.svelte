<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { shelf } from '../../api/shelf';
    import type { Shelf } from '../../api/types';
    import { dayAndClock } from '../../parts/format';

    let { held, dropped = $bindable(null) }: { held: Shelf; dropped?: File | null } = $props();
    $effect(() => {
        const file = dropped;
        if (file === null) return;
        dropped = null;
        send.mutate(file);
    });
    const queries = useQueryClient();
    const again = () => void queries.invalidateQueries({ queryKey: ['shelf'] });
    const send = createMutation(() => ({
        mutationFn: shelf.send,
        onSuccess: again,
        onError: (e: Error) => notices.refused(e),
    }));
    const take = createMutation(() => ({
        mutationFn: shelf.fromInbox,
        onSuccess: again,
        onError: (e: Error) => notices.refused(e),
    }));

    function choose(event: Event & { currentTarget: HTMLInputElement }) {
        const file = event.currentTarget.files?.[0];
        if (file !== undefined) send.mutate(file);
        event.currentTarget.value = '';
    }
</script>

<section class="panel py-3" aria-labelledby="bring">
    <h2 id="bring" class="mb-1">Bring a bag in</h2>
    <p class="text-sm text-quiet">It is read strictly first; only a sound bag is taken, and nothing is overwritten.</p>
    <label class="mt-2 flex flex-col gap-1 text-sm"
        >A ZIP with the bag as its one folder; drop it on this page, or choose it<input
            class="field py-2"
            type="file"
            accept=".zip"
            disabled={send.isPending}
            onchange={choose}
        /></label
    >
    {#if send.isPending}<p class="text-sm text-quiet" role="status">Sending…</p>{/if}
    {#each held.inbox as name (name)}<p class="mt-1 flex items-center gap-2 text-sm">
            <span class="flex-1 truncate font-mono">{name}</span><button
                class="act-quiet !min-h-8"
                disabled={take.isPending}
                onclick={() => take.mutate(name)}>Take in</button
            >
        </p>{:else}<p class="mt-1 text-sm text-quiet">The inbox folder of this bench is empty.</p>{/each}
    {#if held.imports.length > 0}
        <ul class="mt-2 text-sm" aria-label="Brought in lately">
            {#each held.imports.slice(0, 4) as i (i.id)}<li
                    class="border-t border-edge py-1 {i.state === 'refused' ? 'text-amber' : ''}"
                    data-import={i.state}
                >
                    <span class="font-mono">{i.name}</span>: {i.state === 'done'
                        ? `on the shelf, ${dayAndClock(i.at)}`
                        : i.state === 'refused'
                          ? `not taken. ${i.problem?.detail ?? ''}`
                          : `being read ${i.progress === null ? '' : `${Math.round(i.progress * 100)} %`}`}
                </li>{/each}
        </ul>
    {/if}
</section>
