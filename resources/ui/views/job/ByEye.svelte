<script lang="ts">
    import { createMutation } from '@tanstack/svelte-query';
    import { onDestroy } from 'svelte';
    import { handover, pictureNow } from '../../api/handover';
    import { itemAddress, shelf } from '../../api/shelf';
    import type { Job } from '../../api/types';
    import { day } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import LayoutDrawn from './LayoutDrawn.svelte';

    /** What people compare by eye: home layout, wallpapers, and photos by date, before and after. */
    let { job }: { job: Job } = $props();
    const encrypted = $derived(job.comparedWith?.encryption === 'openpgp');
    let passphrase = $state('');
    const look = createMutation(() => ({
        mutationFn: () => handover.byEye(job.id, passphrase === '' ? null : passphrase),
    }));
    const told = $derived(look.data);
    type Picture = NonNullable<typeof told>['photos']['before'][number];
    const LOOKED_AT = 12;
    const days = $derived.by(() => {
        const all: Record<string, { before: Picture[]; after: Picture[] }> = {};
        const of = (p: Picture) => (all[p.modifiedAt.slice(0, 10)] ??= { before: [], after: [] });
        told?.photos.before.forEach((p) => of(p).before.push(p));
        told?.photos.after?.forEach((p) => of(p).after.push(p));
        return Object.entries(all).sort(([a], [b]) => (a < b ? 1 : -1));
    });
    let picked = $state<string | null>(null);
    const shown = $derived(days.find(([d]) => d === picked)?.[1] ?? null);
    // of an encrypted backup pictures are opened one by one, and stay in this page's memory
    let opened = $state<Record<string, string>>({});
    onDestroy(() => Object.values(opened).forEach((o) => URL.revokeObjectURL(o)));
    const before = (kind: string, path: string) =>
        told === undefined || told.encrypted ? opened[`${kind}/${path}`] : itemAddress(told.bag, kind, path);
    $effect(() => {
        if (told === undefined || !told.encrypted) return;
        const wanted: [string, Picture][] = [
            ...told.wallpaper.before.map((p) => ['wallpaper', p] as [string, Picture]),
            ...(shown?.before.slice(0, LOOKED_AT) ?? []).map((p) => ['photos', p] as [string, Picture]),
        ];
        let left = false;
        void (async () => {
            for (const [kind, p] of wanted) {
                if (left || opened[`${kind}/${p.path}`] !== undefined) continue;
                const blob = await shelf.lookAt(told.bag, kind, p.path, passphrase).catch(() => null);
                if (blob !== null && !left) opened[`${kind}/${p.path}`] = URL.createObjectURL(blob);
            }
        })();
        return () => (left = true);
    });
</script>

{#snippet pictures(kind: string, list: Picture[] | null, now: boolean)}
    <ul class="flex flex-wrap gap-2">
        {#each (list ?? []).slice(0, LOOKED_AT) as p (p.path)}
            {@const source = now ? pictureNow(job.id, kind, p.path) : before(kind, p.path)}
            <li class="w-28 text-xs {p.missing && !now ? 'text-loss' : 'text-quiet'}">
                {#if source !== undefined}<img
                        class="aspect-[3/2] w-full rounded object-cover {p.missing && !now
                            ? 'outline-2 outline-loss'
                            : ''}"
                        loading="lazy"
                        src={source}
                        alt={p.path}
                    />{:else}<span class="block aspect-[3/2] w-full rounded bg-sunken"></span>{/if}
                {p.missing ? (now ? 'not in the backup' : 'missing after') : ''}
            </li>
        {:else}<li class="text-sm text-quiet">none</li>{/each}
    </ul>
{/snippet}

<section class="panel py-3" aria-labelledby="eye">
    <h2 id="eye" class="mb-1">Side by side</h2>
    {#if told === undefined}
        <form
            class="flex flex-wrap items-end gap-2"
            onsubmit={(e) => {
                e.preventDefault();
                look.mutate();
            }}
        >
            {#if encrypted}<label class="flex flex-1 flex-col text-sm"
                    >Passphrase of the backup<input
                        class="field !min-h-10"
                        type="password"
                        autocomplete="off"
                        required
                        bind:value={passphrase}
                    /></label
                >{/if}
            <button class="act-quiet" disabled={look.isPending}
                >{look.isPending ? 'Looking…' : 'Look at home layout, wallpaper and photos'}</button
            >
        </form>
        {#if look.isError}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                {look.error.message}
            </p>{/if}
    {:else}
        {#if told.unread !== null}<div class="mb-2"><Notice tone="amber">{told.unread}</Notice></div>{/if}
        <h3 class="mt-2 font-semibold">Home layout</h3>
        <div class="grid gap-3 @xl:grid-cols-2" data-layout>
            <LayoutDrawn title="before" layout={told.layout.before} />
            <LayoutDrawn title="after" layout={told.layout.after} />
        </div>
        <h3 class="mt-3 font-semibold">Wallpaper</h3>
        <div class="grid gap-3 @xl:grid-cols-2">
            <div>
                <p class="text-sm text-quiet">before</p>
                {@render pictures('wallpaper', told.wallpaper.before, false)}
            </div>
            <div>
                <p class="text-sm text-quiet">after</p>
                {@render pictures('wallpaper', told.wallpaper.after, true)}
            </div>
        </div>
        <h3 class="mt-3 font-semibold">Photos by date</h3>
        <div class="max-h-56 overflow-auto">
            <table class="w-full text-sm">
                <thead class="text-left text-quiet"
                    ><tr
                        ><th class="font-normal">Day</th><th class="text-right font-normal">Before</th><th
                            class="text-right font-normal">After</th
                        ><th class="pl-4 font-normal">Missing after</th></tr
                    ></thead
                >
                <tbody>
                    {#each days as [date, of] (date)}{@const lost = of.before.filter((p) => p.missing).length}<tr
                            class="border-t border-edge {lost > 0 ? 'text-loss' : ''}"
                            ><th scope="row" class="text-left font-normal"
                                ><button
                                    class="min-h-7 underline decoration-edge underline-offset-4"
                                    aria-pressed={picked === date}
                                    onclick={() => (picked = picked === date ? null : date)}
                                    >{day(`${date}T12:00:00Z`)}</button
                                ></th
                            ><td class="text-right">{of.before.length}</td><td class="text-right"
                                >{told.photos.after === null ? '–' : of.after.length}</td
                            ><td class="pl-4">{lost === 0 ? '' : lost}</td></tr
                        >{/each}
                </tbody>
            </table>
        </div>
        {#if shown !== null}<div class="mt-2 grid gap-3 @xl:grid-cols-2" data-day={picked}>
                <div>
                    <p class="text-sm text-quiet">before</p>
                    {@render pictures('photos', shown.before, false)}
                </div>
                <div>
                    <p class="text-sm text-quiet">after</p>
                    {@render pictures('photos', shown.after, true)}
                </div>
            </div>{/if}
    {/if}
</section>
