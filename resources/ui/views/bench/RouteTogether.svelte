<script lang="ts">
    import { createMutation, createQueries } from '@tanstack/svelte-query';
    import { api } from '../../api/jobs';
    import type { Job, JobSummary, Route } from '../../api/types';
    import { dayAndClock, kindName, minutes, version } from '../../parts/format';
    import { lostNames } from '../../parts/losses';
    import Notice from '../../parts/Notice.svelte';
    import { acceptAll, alike, wayOf, type Outcome } from './together.svelte';

    /** Puts one route to several like devices, after it was seen where they differ. */
    let { jobs, ondone }: { jobs: JobSummary[]; ondone: (all: Outcome[]) => void } = $props();
    const groups = $derived(alike(jobs).sort((a, b) => b.jobs.length - a.jobs.length));
    let picked = $state<string | null>(null);
    const group = $derived(groups.find((g) => g.name === picked) ?? groups[0]);
    const told = createQueries(() => ({
        queries: (group?.jobs ?? []).map((j) => ({ queryKey: ['job', j.id], queryFn: () => api.job(j.id) })),
    }));
    const whole = $derived(told.flatMap((q) => (q.data === undefined ? [] : [q.data])));
    const ways = $derived([...new Set(whole.flatMap((j) => j.plan?.routes.map(wayOf) ?? []))]);
    let way = $state<string | null>(null);
    const chosen = $derived(way !== null && ways.includes(way) ? way : ways[0]);
    let left = $state<number[]>([]);
    const routeOf = (j: Job) => j.plan?.routes.find((r) => wayOf(r) === chosen);
    const can = $derived(whole.filter((j) => routeOf(j) !== undefined && !left.includes(j.id)));
    const wayWords = (w: string) => {
        const route = whole.flatMap((j) => j.plan?.routes ?? []).find((r) => wayOf(r) === w);
        return route === undefined
            ? w
            : `${route.legs.map((l) => version(l.to.version)).join(', then ')}: ${route.trade}`;
    };
    const lost = (j: Job, r: Route) => lostNames(r, j.device).join(', ') || 'nothing';
    const columns: { name: string; of: (j: Job, r: Route) => string; loss?: boolean }[] = [
        { name: 'Holder', of: (j) => j.holder || '–' },
        { name: 'Lost', of: lost, loss: true },
        { name: 'At risk', of: (_, r) => r.losses.atRisk.map(kindName).join(', ') || 'nothing' },
        { name: 'Time', of: (_, r) => minutes(r.minutes.expected) },
        { name: 'Start by', of: (_, r) => (r.latestStart === null ? 'no end known' : dayAndClock(r.latestStart)) },
    ];
    const differs = (c: (typeof columns)[number]) =>
        new Set(
            can.map((j) => {
                const r = routeOf(j);
                return r === undefined ? '' : c.of(j, r);
            }),
        ).size > 1;
    const losing = $derived(
        can.filter((j) => {
            const r = routeOf(j);
            return r !== undefined && lost(j, r) !== 'nothing';
        }).length,
    );
    const accept = createMutation(() => ({
        mutationFn: () => acceptAll(can, chosen ?? ''),
        onSuccess: ondone,
    }));
</script>

{#if group === undefined}<Notice>No device waits for its route. Devices come here when they have been read.</Notice>
{:else}
    <div class="flex flex-wrap gap-4">
        <label class="flex flex-col text-sm"
            >Like devices<select class="field" value={group.name} onchange={(e) => (picked = e.currentTarget.value)}
                >{#each groups as g (g.name)}<option value={g.name}>{g.jobs.length} × {g.name}</option>{/each}</select
            ></label
        >
        <label class="flex min-w-0 flex-1 flex-col text-sm"
            >Their route<select class="field w-full" value={chosen} onchange={(e) => (way = e.currentTarget.value)}
                >{#each ways as w (w)}<option value={w}>{wayWords(w)}</option>{/each}</select
            ></label
        >
    </div>
    {#if whole.length < group.jobs.length}<p class="mt-2 text-quiet" role="status">Reading their plans…</p>
    {:else if ways.length === 0}<div class="mt-2">
            <Notice tone="amber">Nothing reaches the goal of these devices now. Open one to see why.</Notice>
        </div>
    {:else}
        <table class="mt-3 w-full text-sm">
            <thead class="text-left text-quiet"
                ><tr
                    ><th class="font-normal">Device</th>{#each columns as c (c.name)}<th
                            class={differs(c) ? 'font-semibold text-ink' : 'font-normal'}
                            >{c.name}{differs(c) ? ', differs' : ''}</th
                        >{/each}</tr
                ></thead
            >
            <tbody>
                {#each whole as j (j.id)}{@const r = routeOf(j)}<tr class="border-t border-edge" data-like={j.serial}>
                        <th scope="row" class="text-left font-normal"
                            ><label class="flex min-h-11 items-center gap-2"
                                ><input
                                    type="checkbox"
                                    class="h-5 w-5 accent-[var(--jade)]"
                                    disabled={r === undefined}
                                    checked={r !== undefined && !left.includes(j.id)}
                                    onchange={(e) =>
                                        (left = e.currentTarget.checked
                                            ? left.filter((id) => id !== j.id)
                                            : [...left, j.id])}
                                /><span class="font-mono text-base">{j.place?.port ?? ''}</span><span class="font-mono"
                                    >{j.serial}</span
                                ></label
                            ></th
                        >
                        {#if r === undefined}<td colspan={columns.length} class="text-amber"
                                >this route is not open to it</td
                            >{:else}{#each columns as c (c.name)}{@const v = c.of(j, r)}<td
                                    class={c.loss && v !== 'nothing'
                                        ? 'font-semibold text-loss'
                                        : differs(c)
                                          ? 'font-semibold'
                                          : 'text-quiet'}>{v}</td
                                >{/each}{/if}
                    </tr>{/each}
            </tbody>
        </table>
        <button class="act mt-3" disabled={accept.isPending || can.length === 0} onclick={() => accept.mutate()}
            >{accept.isPending
                ? 'Putting them on it…'
                : losing > 0
                  ? `Accept the losses of ${losing} and put ${can.length} on this route`
                  : `Put ${can.length} on this route`}</button
        >
    {/if}
{/if}
