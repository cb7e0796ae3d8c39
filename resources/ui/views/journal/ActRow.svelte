<script lang="ts">
    import { link } from 'svelte-spa-router';
    import type { Act } from '../../api/types';
    import { dayAndClock } from '../../parts/format';
    import { inShopsForm } from '../../parts/times.svelte';

    let { act }: { act: Act } = $props();
    const said = (v: unknown): string =>
        Array.isArray(v)
            ? v.map(said).join(', ')
            : v !== null && typeof v === 'object'
              ? Object.entries(v)
                    .map(([k, x]) => `${k} ${said(x)}`)
                    .join(', ')
              : v === null
                ? 'none'
                : inShopsForm(String(v));
    const evidence = $derived(Object.entries(act.evidence).filter(([, v]) => v !== null && said(v) !== ''));
    const short = $derived(evidence.map(([k, v]) => `${k}: ${said(v)}`).join('; '));
    const LONG = 110;
    const bad = $derived(act.act?.endsWith('-failed') || act.act?.endsWith('-refused') || act.act?.endsWith('-again'));
</script>

<tr class="border-t border-edge" data-act={act.act}>
    <td class="whitespace-nowrap">{dayAndClock(act.at)}</td>
    <td class={act.machine ? 'text-quiet' : ''}>{act.who}</td>
    <td
        ><span class={bad ? 'text-amber' : ''}>{act.words}</span> <span class="code text-xs">{act.act}</span>
        {#if short.length > LONG}<details class="text-quiet">
                <summary class="cursor-pointer">{short.slice(0, LONG)}…</summary>
                <dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-3">
                    {#each evidence as [k, v] (k)}<dt>{k}</dt>
                        <dd class="break-all">{said(v)}</dd>{/each}
                </dl>
            </details>
        {:else if short !== ''}<span class="block break-words text-quiet">{short}</span>{/if}</td
    >
    <td class="font-mono">{act.serial ?? ''}</td>
    <td
        >{#if act.job !== null}<a class="underline underline-offset-4" href="/jobs/{act.job}" use:link>job {act.job}</a
            >{/if}</td
    >
</tr>
