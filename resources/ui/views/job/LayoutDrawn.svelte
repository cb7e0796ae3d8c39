<script lang="ts">
    import type { components } from '../../api/schema';

    type Layout = components['schemas']['HomeLayout'];
    type Icon = components['schemas']['Icon'];
    let { title, layout }: { title: string; layout: Layout | null } = $props();
</script>

{#snippet icon(i: Icon)}
    <span
        class={[
            'inline-flex min-h-9 items-center rounded-md border px-2 py-1 text-xs leading-tight',
            i.missing ? 'border-dashed border-loss font-semibold text-loss' : 'border-edge bg-panel',
        ]}
        data-missing={i.missing}
        >{i.name}{#if i.missing}<span class="ml-1">– missing after</span>{/if}</span
    >
{/snippet}

<figure class="min-w-0">
    <figcaption class="mb-1 text-sm text-quiet">{title}</figcaption>
    {#if layout === null}<p class="text-sm text-quiet">No home layout that could be read.</p>
    {:else}
        <ol class="flex flex-col gap-2">
            {#each layout.pages as page, n (n)}<li class="rounded-lg border border-edge bg-sunken p-2">
                    <span class="block pb-1 text-xs text-quiet">page {n + 1}</span>
                    <ul class="flex flex-wrap gap-1.5">
                        {#each page as spot, k (k)}<li>
                                {#if spot.folder !== null}<span
                                        class="block rounded-lg border border-quiet bg-water/40 p-1.5"
                                        ><span class="block pb-1 text-xs font-semibold">{spot.folder}</span><span
                                            class="flex flex-wrap gap-1"
                                            >{#each spot.apps as a, m (m)}{@render icon(a)}{/each}</span
                                        ></span
                                    >{:else}{#each spot.apps as a, m (m)}{@render icon(a)}{/each}{/if}
                            </li>{/each}
                    </ul>
                </li>{/each}
            <li class="rounded-lg border-2 border-edge bg-panel p-2">
                <span class="block pb-1 text-xs text-quiet">always at hand</span>
                <span class="flex flex-wrap gap-1.5"
                    >{#each layout.dock as a, m (m)}{@render icon(a)}{/each}</span
                >
            </li>
        </ol>
    {/if}
</figure>
