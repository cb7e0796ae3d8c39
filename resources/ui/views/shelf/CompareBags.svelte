<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';

    let { one, other }: { one: Bag; other: Bag } = $props();
    const closed = $derived([one, other].filter((b) => b.encryption === 'openpgp'));
    let typed = $state<Record<string, string>>({});
    let lastError = $state<string | null>(null);
    let given = $state<Record<string, string> | null>(null);
    const found = createQuery(() => ({
        queryKey: ['shelf', 'compare', one.id, other.id, given !== null],
        queryFn: () =>
            closed.length === 0
                ? shelf.compare(one.id, other.id)
                : shelf.compareOpened(one.id, other.id, given?.[one.id] ?? null, given?.[other.id] ?? null),
        enabled: closed.length === 0 || given !== null,
        gcTime: 0,
        retry: false,
    }));
    $effect(() => {
        if (!found.isError) return;
        lastError = found.error.message;
        given = null; // it is asked for again, with why
    });
    const some = (paths: string[], more: number) =>
        paths.length === 0
            ? '–'
            : `${paths.length + more}: ${paths.slice(0, 4).join(', ')}${paths.length + more > 4 ? ' …' : ''}`;
</script>

<h2 class="mb-1">What one has that the other lacks</h2>
{#if closed.length > 0 && given === null}
    <form
        class="flex flex-wrap items-end gap-2"
        aria-label="Passphrases"
        onsubmit={(e) => {
            e.preventDefault();
            lastError = null;
            given = { ...typed };
            typed = {};
        }}
    >
        {#each closed as b (b.id)}<label class="flex flex-1 flex-col text-sm"
                >Passphrase of {b.label}<input
                    class="field"
                    type="password"
                    autocomplete="off"
                    required
                    value={typed[b.id] ?? ''}
                    oninput={(e) => (typed = { ...typed, [b.id]: e.currentTarget.value })}
                /></label
            >{/each}
        <button class="act-quiet">Open and compare</button>
    </form>
    {#if lastError !== null}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">{lastError}</p>{/if}
{:else if found.isError}<Notice tone="amber">{found.error.message}</Notice>
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
