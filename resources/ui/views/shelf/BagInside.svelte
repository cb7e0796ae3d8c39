<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { itemAddress, shelf } from '../../api/shelf';
    import type { Bag } from '../../api/types';
    import { bytes, dayAndClock, kindName } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';

    let { bag }: { bag: Bag } = $props();
    const kinds = $derived(Object.entries(bag.counts).filter(([, n]) => n > 0));
    let picked = $state<string | null>(null);
    const kind = $derived(picked ?? kinds[0]?.[0] ?? '');
    const items = createQuery(() => ({
        queryKey: ['shelf', bag.id, kind],
        queryFn: () => shelf.items(bag.id, kind),
        enabled: kind !== '' && bag.encryption === 'none',
    }));
    let open = $state<{ path: string; text: string } | null>(null);
    const isPicture = (path: string) => /\.(jpe?g|png)$/i.test(path);
    const isText = (path: string) => /\.(vcf|ics|md|txt|jsonl?|csv)$/i.test(path);

    async function read(path: string) {
        const answer = await fetch(itemAddress(bag.id, kind, path)).catch(() => null);
        open = {
            path,
            text: answer?.ok
                ? (await answer.text()).slice(0, 20_000)
                : 'This item cannot be read. Verify the bag, to see what is wrong.',
        };
    }
</script>

{#if bag.encryption === 'openpgp'}
    <Notice
        >This bag is encrypted. What it holds is told by its passphrase only: write kinds out in open formats to read
        them.</Notice
    >
{:else}
    <div class="flex flex-wrap gap-1" role="group" aria-label="Kinds in this bag">
        {#each kinds as [k, n] (k)}<button
                class="rounded-full border px-3 py-0.5 text-sm {k === kind
                    ? 'border-jade bg-jade-wash font-semibold'
                    : 'border-edge'}"
                aria-pressed={k === kind}
                onclick={() => {
                    picked = k;
                    open = null;
                }}>{kindName(k)} {n}</button
            >{/each}
    </div>
    {#if items.isError}<div class="mt-2"><Notice tone="amber">{items.error.message}</Notice></div>{/if}
    {#if kind === 'photos' || kind === 'wallpaper'}
        <ul class="mt-2 grid max-h-72 grid-cols-4 gap-2 overflow-auto">
            {#each (items.data?.items ?? []).filter((i) => isPicture(i.path)).slice(0, 60) as i (i.path)}<li>
                    <a href={itemAddress(bag.id, kind, i.path)} target="_blank" rel="noreferrer"
                        ><img
                            class="aspect-[3/2] w-full rounded object-cover"
                            loading="lazy"
                            src={itemAddress(bag.id, kind, i.path)}
                            alt={i.path}
                        /></a
                    >
                </li>{/each}
        </ul>
    {:else}
        <ul class="mt-2 max-h-40 overflow-auto text-sm">
            {#each items.data?.items ?? [] as i (i.path)}<li class="flex gap-3 border-t border-edge py-0.5">
                    <span class="flex-1 truncate font-mono"
                        >{#if isText(i.path)}<button
                                class="underline decoration-edge underline-offset-4"
                                onclick={() => read(i.path)}>{i.path}</button
                            >{:else}{i.path}{/if}</span
                    ><span class="text-quiet">{bytes(i.bytes)}</span><span class="text-quiet"
                        >{dayAndClock(i.modifiedAt)}</span
                    >
                </li>{/each}
        </ul>
        {#if open}<p class="mt-2 text-sm text-quiet">{open.path}</p>
            <pre
                class={[
                    'max-h-40 overflow-auto rounded-md bg-sunken p-2',
                    'font-mono text-xs whitespace-pre-wrap',
                ]}>{open.text}</pre>
        {/if}
    {/if}
    {#if items.data && items.data.more > 0}<p class="text-sm text-quiet">and {items.data.more} more</p>{/if}
{/if}
