<script lang="ts">
    import { CircleCheck, OctagonAlert, TriangleAlert } from '@lucide/svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { watching } from '../../api/watching';
    import Notice from '../../parts/Notice.svelte';

    const held = createQuery(() => ({ queryKey: ['health'], queryFn: watching.health, refetchInterval: 15_000 }));
    const WORDS = {
        good: 'All is well.',
        warns: 'Work goes on; somebody should look at what is marked.',
        fails: 'Work stands still, or will soon.',
    };
    // what wants somebody comes first
    const ORDER = { fails: 0, warns: 1, good: 2 };
    const rows = $derived([...(held.data?.components ?? [])].sort((a, b) => ORDER[a.state] - ORDER[b.state] || 0));
</script>

{#if held.data}
    <p class="text-sm {held.data.state === 'good' ? 'text-quiet' : 'text-amber'}" data-health={held.data.state}>
        {WORDS[held.data.state]}
    </p>
    <dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
        {#each rows as c (c.name)}
            <dt class="flex items-center gap-2 {c.state === 'good' ? 'text-quiet' : ''}">
                <span class={c.state === 'good' ? 'text-jade' : c.state === 'warns' ? 'text-amber' : 'text-loss'}
                    >{#if c.state === 'good'}<CircleCheck
                            size="1.1em"
                            aria-label="good"
                        />{:else if c.state === 'warns'}<TriangleAlert
                            size="1.1em"
                            aria-label="somebody should look"
                        />{:else}<OctagonAlert size="1.1em" aria-label="stands still" />{/if}</span
                ><span class="first-letter:uppercase">{c.name}</span>
            </dt>
            <dd class={c.state === 'good' ? 'text-quiet' : ''}>{c.words}</dd>
        {/each}
    </dl>
{:else if held.isError}<Notice tone="amber">{held.error.message}</Notice>{/if}
