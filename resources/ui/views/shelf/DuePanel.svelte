<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import Ask from '../../parts/Ask.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { day } from '../../parts/format';
    import { notices } from '../../shell/notices.svelte';

    const SHOWN = 6;
    let { leads }: { leads: boolean } = $props();

    const queries = useQueryClient();
    const due = createQuery(() => ({ queryKey: ['shelf', 'due'], queryFn: shelf.due, refetchInterval: 60_000 }));
    const free = $derived(due.data?.bags.filter((b) => due.data.restedOn[b.id] === undefined) ?? []);
    let asked = $state(false);
    let reason = $state('The date until which it was kept is past.');
    const remove = createMutation(() => ({
        // one after the other: where one may not go after all, those before it are gone, and the others are here still
        mutationFn: async () => {
            for (const bag of free) await shelf.remove(bag.id, reason);
        },
        onError: (e: Error) => notices.refused(e),
        onSettled: () => void queries.invalidateQueries({ queryKey: ['shelf'] }),
    }));
</script>

{#if due.isError}<Notice tone="amber">{due.error.message}</Notice>
{:else if due.data && due.data.many > 0}
    {@const d = due.data}
    <section class="panel py-3" aria-labelledby="due" data-due={d.many}>
        <h2 id="due" class="mb-1">
            {d.many === 1 ? 'One sealed copy is past its date' : `${d.many} sealed copies are past their dates`}
        </h2>
        <ul class="text-sm">
            {#each d.bags.slice(0, SHOWN) as b (b.id)}
                <li class="border-t border-edge py-1">
                    <a
                        class="underline decoration-edge underline-offset-4 hover:decoration-jade"
                        href="#/shelf/{encodeURIComponent(b.id)}">{b.label}</a
                    >
                    <span class="block text-quiet"
                        ><span class="font-mono">{b.serial}</span>, kept until {b.keepUntil === null
                            ? ''
                            : day(b.keepUntil)}</span
                    >
                    {#if d.restedOn[b.id] !== undefined}<span class="block text-amber"
                            >It stays for now. {d.restedOn[b.id]}</span
                        >{/if}
                </li>
            {/each}
        </ul>
        {#if d.many > SHOWN}<p class="text-sm text-quiet">and {d.many - SHOWN} more.</p>{/if}
        {#if d.byRule}<p class="mt-1 text-sm text-quiet">
                They go by themselves within the next minute, but for what an open job rests on.
            </p>
        {:else if leads && free.length > 0}
            <form
                class="mt-2 flex flex-col gap-2"
                onsubmit={(e) => {
                    e.preventDefault();
                    asked = true;
                }}
            >
                <label class="flex flex-col text-sm"
                    >Why are they deleted?<input
                        class="field"
                        name="due-reason"
                        maxlength="500"
                        required
                        bind:value={reason}
                    /></label
                >
                <button class="act-quiet self-start text-loss" disabled={remove.isPending || reason.trim() === ''}
                    >{remove.isPending
                        ? 'Deleting…'
                        : free.length === 1
                          ? 'Delete it'
                          : `Delete these ${free.length}`}</button
                >
            </form>
        {:else if !leads}<p class="mt-1 text-sm text-quiet">
                A lead deletes them, or sets in Settings that they go by themselves.
            </p>{/if}
    </section>
    <Ask
        bind:open={asked}
        title={free.length === 1 ? 'Delete this sealed copy?' : `Delete ${free.length} sealed copies?`}
        yes="Delete"
        no="Keep"
        loss
        busy={remove.isPending}
        onyes={() => remove.mutate()}
        >What they hold cannot be had back from here: {free
            .slice(0, SHOWN)
            .map((b) => b.label)
            .join('; ')}{free.length > SHOWN ? ` and ${free.length - SHOWN} more` : ''}.</Ask
    >
{/if}
