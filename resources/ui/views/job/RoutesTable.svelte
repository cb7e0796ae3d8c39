<script lang="ts">
    import type { Job, Route, ToldChance } from '../../api/types';
    import { BY_HAND_OUTCOMES, TERM } from '../../api/words';
    import { bytes, clock, day, dayAndClock, kindName, minutes, version } from '../../parts/format';
    import { lostNames } from '../../parts/losses';
    import Term from '../../parts/Term.svelte';
    import CrossingPath from './CrossingPath.svelte';
    import { nextAct } from './nextact.svelte';

    let {
        routes,
        device,
        refused,
        chosen,
        taken,
        mayTake,
        busy,
        onchoose,
        ontake,
        labels = {},
        chances = [],
        remedies = {},
        onremedy = null,
    }: {
        routes: Route[];
        device: Job['device'];
        refused: Job['refusedPermits'];
        chosen: string;
        taken: boolean;
        mayTake: boolean;
        busy: boolean;
        onchoose: (id: string) => void;
        ontake: (route: Route, lookFirst: boolean) => void;
        labels?: Job['baseLabels'];
        /** What is estimated of the windows that the routes need. */
        chances?: ToldChance[];
        remedies?: Job['remedies'];
        onremedy?: ((code: 'write-out' | 'encrypt', kind: string) => void) | null;
    } = $props();

    let lookFirst = $state(false);
    const names = (list: string[]) => (list.length === 0 ? 'nothing' : list.map(kindName).join(', '));
    const lost = (r: Route) => lostNames(r, device);
    const refusal = (r: Route) => refused.find((p) => r.legs.some((l) => l.to.build === p.build));
    const again = (r: Route) => r.kinds.filter((k) => BY_HAND_OUTCOMES.includes(k.outcome)).map((k) => k.kind);
    function data(r: Route): string {
        if (r.base === null) return 'stays on the device';
        const which =
            r.base.backup === 'planned'
                ? 'the new backup'
                : r.base.backup === 'pretended'
                  ? 'the older backup'
                  : `“${labels[r.base.backup ?? ''] ?? r.base.backup ?? ''}”`;
        if (r.base.treatment === 'none') return 'no backup is put back';
        const proof = r.base.unproven ? ' (unproven)' : '';
        return r.base.treatment === 'as-is'
            ? `${which}, as it is`
            : `${which}, through a copy that declares ${version(r.base.declaredVersion ?? '')}${proof}`;
    }
    const chanceOf = (r: Route) => chances.find((c) => c.route === r.id);
    /** The window that is the least likely to hold, and by when half of such windows were closed. */
    function likely(r: Route): string {
        const c = chanceOf(r);
        if (c === undefined) return r.latestStart === null ? 'no estimate' : 'its end is known';
        const half = c.halfClosedBy === null ? '' : `; half of such windows were closed by ${day(c.halfClosedBy)}`;
        return `${c.isLittle ? 'little chance: ' : ''}${c.words} for ${c.version}${half}`;
    }
    type Row = {
        name: string;
        of: (r: Route) => string;
        loss?: (r: Route) => boolean;
        term?: keyof typeof TERM;
        title?: (r: Route) => string;
    };
    const rows: Row[] = [
        { name: 'Data', of: data, term: 'base' },
        { name: 'Lost', of: (r) => lost(r).join(', ') || 'nothing', loss: (r) => lost(r).length > 0 },
        {
            name: 'At risk',
            of: (r) => names(r.losses.atRisk),
            loss: (r) => r.losses.atRisk.length > 0,
            term: 'at-risk',
        },
        { name: 'Out of date', of: (r) => names(r.losses.outOfDate) },
        { name: 'By hand again', of: (r) => names(again(r)) },
        {
            name: 'Time',
            of: (r) => `${minutes(r.minutes.expected)}, from ${minutes(r.minutes.low)} to ${minutes(r.minutes.high)}`,
        },
        { name: 'To fetch', of: (r) => `${bytes(r.fetchBytes)}; disk at most ${bytes(r.diskPeakBytes)}` },
        {
            name: 'Start by',
            term: 'latest-start',
            of: (r) => (r.latestStart === null ? 'no end of a window is known' : dayAndClock(r.latestStart)),
        },
        {
            name: 'Still signed then',
            term: 'estimate',
            of: likely,
            loss: (r) => chanceOf(r)?.isLittle === true,
            title: (r) => chanceOf(r)?.restsOn ?? '',
        },
    ];
    const EMPTY = ['nothing', 'no estimate', 'its end is known'];
    // what is the same in all routes steps back, what differs stands out
    const differs = (row: Row) => new Set(routes.map(row.of)).size > 1;
    const shown = $derived(
        rows.filter((row) => differs(row) || row.name === 'Lost' || routes.some((r) => !EMPTY.includes(row.of(r)))),
    );
    function leg(l: Route['legs'][number]): string {
        const ends = l.windowEnds === null ? 'no end known' : `window ends ${dayAndClock(l.windowEnds)}`;
        const starts = clock(new Date(Date.now() + l.startsAfterMinutes * 60000));
        return `${l.move} to ${l.to.version}, ${ends}, after ${starts}`;
    }
    const title = (r: Route) => r.legs.map(leg).join('; ');
    const takeWords = (r: Route) =>
        lost(r).length > 0 ? 'Accept these losses and take this route' : 'Take this route';
    const take = (r: Route) => ontake(r, lookFirst && r.base !== null);
    const picked = $derived(routes.find((r) => r.id === chosen));
    $effect(() =>
        nextAct.offer(
            'accept-route',
            mayTake && picked !== undefined
                ? { label: takeWords(picked), run: () => take(picked), disabled: busy }
                : null,
        ),
    );
    /** What would end each loss; what is done on the device is only said. */
    const endings = (r: Route) =>
        r.base === null || r.base.treatment === 'none'
            ? []
            : r.losses.lost.flatMap((kind) => (remedies[kind] ?? []).map((m) => ({ kind, ...m })));
</script>

{#snippet ending(e: ReturnType<typeof endings>[number])}
    {#if e.code !== 'sync' && onremedy !== null}{@const code = e.code}<button
            class="act-quiet !min-h-8 !px-2 text-xs"
            data-remedy={code}
            disabled={busy}
            onclick={() => onremedy(code, e.kind)}>{e.words}</button
        >{:else}<span class="px-1 py-1 text-xs text-quiet">or {e.words}</span>{/if}
{/snippet}

<div class="overflow-x-auto">
    <table
        class="w-full table-fixed text-sm"
        style:min-width="{6 + routes.length * 10}rem"
        aria-label="Routes side by side, best first"
    >
        <thead>
            <tr class="align-top">
                <td class="w-24"></td>
                {#each routes as r (r.id)}
                    <th
                        scope="col"
                        class="rounded-t-md border-x-2 border-t-2 px-2 pt-2 pb-1 text-left font-normal {r.id === chosen
                            ? 'border-jade bg-jade-wash'
                            : 'border-transparent'}"
                        title={title(r)}
                        data-route={r.id}
                    >
                        <CrossingPath route={r} />
                        <p class="mt-1 leading-snug">{r.trade}</p>
                        {#if refusal(r)}<p class="mt-1 rounded-md bg-amber-wash px-2 py-1 text-amber" data-refused>
                                {dayAndClock(refusal(r)?.at ?? '')}, {refusal(r)?.build}: {refusal(r)?.words}
                                <span class="code !text-inherit">{refusal(r)?.reason}</span>
                            </p>{/if}
                    </th>
                {/each}
            </tr>
        </thead>
        <tbody>
            {#each shown as row (row.name)}
                {@const stands = differs(row)}
                <tr class="align-top">
                    <th scope="row" class="py-0.5 pr-2 text-left font-normal text-quiet"
                        >{#if row.term !== undefined}<Term of={row.term}>{row.name}</Term>{:else}{row.name}{/if}</th
                    >
                    {#each routes as r (r.id)}
                        <td
                            class="border-x-2 px-2 py-0.5 {r.id === chosen
                                ? 'border-jade bg-jade-wash'
                                : 'border-transparent'} {row.loss?.(r)
                                ? 'font-semibold text-loss'
                                : stands && routes.length > 1
                                  ? 'font-semibold'
                                  : routes.length > 1
                                    ? 'text-quiet'
                                    : ''}"
                            title={row.title?.(r)}
                            >{row.of(r)}{#if row.name === 'Lost' && endings(r).length > 0}<span
                                    class="mt-1 flex flex-wrap gap-1 font-normal text-ink"
                                    >{#each endings(r) as e (e.kind + e.code)}{@render ending(e)}{/each}</span
                                >{/if}</td
                        >
                    {/each}
                </tr>
            {/each}
            <tr>
                <td></td>
                {#each routes as r (r.id)}
                    <td
                        class="rounded-b-md border-x-2 border-b-2 px-2 pt-1 pb-2 {r.id === chosen
                            ? 'border-jade bg-jade-wash'
                            : 'border-transparent'}"
                    >
                        {#if taken}<p class="font-semibold text-jade-strong">This route was taken.</p>
                        {:else if r.id !== chosen}<button class="act-quiet w-full" onclick={() => onchoose(r.id)}
                                >Look at this route</button
                            >
                        {:else if mayTake}{#if r.base !== null}<label class="flex min-h-9 items-center gap-2"
                                    ><input
                                        type="checkbox"
                                        class="h-5 w-5 accent-[var(--jade)]"
                                        bind:checked={lookFirst}
                                    />Look at the device as new first, before anything is put back</label
                                >{/if}<button class="act-quiet w-full" disabled={busy} onclick={() => take(r)}
                                >{takeWords(r)}</button
                            >{/if}
                    </td>
                {/each}
            </tr>
        </tbody>
    </table>
</div>
