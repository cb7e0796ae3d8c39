<script lang="ts">
    import type { WindowLane } from '../../api/types';
    import { bytes, dayAndClock } from '../../parts/format';
    import { TERM } from '../../api/words';
    import Term from '../../parts/Term.svelte';
    import ForecastWords from '../../parts/ForecastWords.svelte';
    import Copied from '../../parts/Copied.svelte';
    import FetchAhead from './FetchAhead.svelte';

    let { lane }: { lane: WindowLane } = $props();

    const TERMS: Record<string, keyof typeof TERM> = {
        'By erasing': 'erase-install',
        'Update in place from': 'in-place',
        'Step-down in place from': 'in-place',
        'Rollback index': 'rollback-counter',
        'Radio level': 'radio-level',
        'Host agent': 'host-agent',
    };
    const rules = $derived([
        ['By erasing', lane.rules.eraseInstall ? 'yes' : 'no: in place only', false],
        ['Update in place from', lane.rules.inPlaceFrom ?? 'not accepted', lane.rules.inPlaceFrom !== null],
        ['Step-down in place from', lane.rules.stepDownFrom ?? 'not accepted', lane.rules.stepDownFrom !== null],
        ['Rollback index', String(lane.rules.rollbackIndex), true],
        ['Radio level', String(lane.rules.radioLevel), true],
        ['Host agent', lane.rules.hostAgentMinimum === null ? 'any' : `${lane.rules.hostAgentMinimum} or newer`, false],
        [
            'Store schemas',
            Object.entries(lane.rules.storeSchemas)
                .map(([k, n]) => `${k} ${n}`)
                .join(', ') || 'none named',
            false,
        ],
    ] as [string, string, boolean][]);
</script>

<article class="border-l-4 border-jade pl-4" aria-live="polite" data-build={lane.build}>
    <h3 class="text-lg font-semibold">
        {lane.label} <span class="text-base font-normal"><Copied text={lane.build} what="Build" /></span>
    </h3>
    <p>{lane.words} <span class="text-quiet">{lane.channel}, released {dayAndClock(lane.releasedAt)}.</span></p>
    <div class="mt-1 text-sm"><ForecastWords forecast={lane.forecast} /></div>
    <div class="mt-2 grid gap-x-8 gap-y-1 text-sm @3xl:grid-cols-2">
        <dl class="grid content-start grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
            {#each rules as [name, value, mono] (name)}{@const term = TERMS[name]}
                <dt class="text-quiet">
                    {#if term !== undefined}<Term of={term}>{name}</Term>{:else}{name}{/if}
                </dt>
                <dd class={mono ? 'font-mono' : ''}>{value}</dd>{/each}
        </dl>
        <dl class="grid content-start grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
            <dt class="text-quiet">Package</dt>
            <dd>
                <span class="font-mono break-all">{lane.package.fileName}</span>
                <FetchAhead sha256={lane.package.sha256} />
            </dd>
            <dt class="text-quiet">Size</dt>
            <dd>{bytes(lane.package.bytes)}</dd>
            <dt class="text-quiet">SHA-256</dt>
            <dd class="text-xs"><Copied text={lane.package.sha256} what="Digest" /></dd>
            <dt class="text-quiet">For</dt>
            <dd class="font-mono">{lane.package.hardwareIds.join(', ')}</dd>
            <dt class="text-quiet">Windows</dt>
            <dd>
                {#each lane.windows as w (w.from)}<span class="block"
                        >{dayAndClock(w.from)} – {w.until === null ? 'open' : dayAndClock(w.until)}{w.announced
                            ? ', announced'
                            : ''}</span
                    >{:else}none{/each}
            </dd>
        </dl>
    </div>
</article>
