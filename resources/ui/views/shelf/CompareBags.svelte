<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';

    let { one, other }: { one: Bag; other: Bag } = $props();
    const found = createQuery(() => ({
        queryKey: ['shelf', 'compare', one.id, other.id],
        queryFn: () => shelf.compare(one.id, other.id),
    }));
    const some = (paths: string[], more: number) =>
        paths.length === 0
            ? '–'
            : `${paths.length + more}: ${paths.slice(0, 4).join(', ')}${paths.length + more > 4 ? ' …' : ''}`;
</script>

<h2 class="mb-1">What the one has that the other lacks</h2>
{#if found.isError}<Notice tone="amber">{found.error.message}</Notice>
{:else if found.data}
    <table class="w-full text-sm">
        <thead class="text-left text-quiet"
            ><tr
                ><th class="font-normal">Kind</th><th class="text-right font-normal">Same</th><th
                    class="pl-4 font-normal">Only in {one.label}</th
                ><th class="pl-4 font-normal">Only in {other.label}</th></tr
            ></thead
        >
        <tbody
            >{#each found.data.kinds as k (k.kind)}<tr class="border-t border-edge align-top"
                    ><th scope="row" class="py-1 text-left font-normal">{kindName(k.kind)}</th><td class="text-right"
                        >{k.same}</td
                    ><td class="pl-4 break-all">{some(k.onlyHere, k.moreHere)}</td><td class="pl-4 break-all"
                        >{some(k.onlyThere, k.moreThere)}</td
                    ></tr
                >{/each}</tbody
        >
    </table>
{:else}<p class="text-quiet" role="status">Comparing…</p>{/if}
