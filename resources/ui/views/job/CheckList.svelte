<script lang="ts">
    import { Check as Tick, CircleDashed, CircleHelp, CircleSlash, UserCheck } from '@lucide/svelte';
    import Countdown from '../../parts/Countdown.svelte';
    import { checkName } from '../../parts/checks';
    import { TERM_OF_CHECK, wayOf } from '../../parts/mends';
    import Term from '../../parts/Term.svelte';
    import type { Check, Job } from '../../api/types';
    import WriteOutForm from './WriteOutForm.svelte';
    import { ATTESTED_CHECKS, CHECK_STATE } from '../../api/words';

    let {
        checks,
        may,
        coming = () => false,
        lockDelayEndsAt = null,
        writeOut = null,
        onattest,
        ontakeback,
    }: {
        checks: Check[];
        may: { attest: boolean; takeBack: boolean };
        /** Whether the job itself is on its way to it. */
        coming?: (code: string) => boolean;
        lockDelayEndsAt?: string | null;
        writeOut?: Job | null;
        onattest: (code: string) => void;
        ontakeback: (code: string) => void;
    } = $props();

    const lacking = $derived(checks.filter((c) => c.state === 'fail' || c.state === 'unknown'));
    const open = $derived(lacking.filter((c) => !coming(c.code)));
    const ahead = $derived(lacking.filter((c) => coming(c.code)));
    const good = $derived(checks.filter((c) => c.state === 'pass' || c.state === 'attested'));
</script>

{#snippet name(code: string)}
    {@const term = TERM_OF_CHECK[code]}{#if term !== undefined}<Term of={term}>{checkName(code)}</Term
        >{:else}{checkName(code)}{/if}
{/snippet}

<ul>
    {#each open as c (c.code)}
        <li class="flex items-start gap-2 border-t border-edge py-2" data-check={c.code} data-state={c.state}>
            {#if c.state === 'fail'}<CircleSlash
                    size="1.3em"
                    class="mt-0.5 shrink-0 text-amber"
                    aria-hidden="true"
                />{:else}<CircleHelp size="1.3em" class="mt-0.5 shrink-0 text-amber" aria-hidden="true" />{/if}
            <span class="flex-1"
                ><span class="font-semibold">{@render name(c.code)}</span>
                <span class="text-sm text-quiet">{CHECK_STATE[c.state]} <span class="code text-xs">{c.code}</span></span
                ><span class="block text-sm"
                    >{c.mend}
                    {c.evidence}{#if wayOf(c.code) !== null}&nbsp;<a
                            class="underline underline-offset-4"
                            href={wayOf(c.code)?.href}>{wayOf(c.code)?.words}</a
                        >{/if}</span
                >{#if c.code === 'lock-delay' && lockDelayEndsAt !== null}<span class="block text-sm"
                        ><Countdown until={lockDelayEndsAt} ahead="the delay ends in" past="the delay ended" /></span
                    >{/if}{#if c.code === 'side-exports' && writeOut !== null}<WriteOutForm job={writeOut} />{/if}</span
            >
            {#if may.attest && ATTESTED_CHECKS.includes(c.code)}<button
                    class="act-quiet shrink-0"
                    onclick={() => onattest(c.code)}>I have checked</button
                >{/if}
        </li>
    {/each}
</ul>
{#if ahead.length > 0}<ul class="border-t border-edge py-2 text-sm text-quiet" aria-label="What the job sees to">
        {#each ahead as c (c.code)}<li class="flex items-center gap-1.5" data-check={c.code} data-state={c.state}>
                <CircleDashed size="1.1em" class="shrink-0" aria-hidden="true" />{checkName(c.code)}: not yet; the job
                sees to it
            </li>{/each}
    </ul>{/if}
<ul class="mt-1 grid grid-cols-2 gap-x-4 border-t border-edge pt-2 text-sm">
    {#each good as c (c.code)}
        <li class="flex items-start gap-1.5 py-0.5" data-check={c.code} data-state={c.state} title={c.evidence}>
            {#if c.state === 'pass'}<Tick
                    size="1.05em"
                    class="mt-0.5 shrink-0 text-jade"
                    aria-hidden="true"
                />{:else}<UserCheck size="1.05em" class="mt-0.5 shrink-0 text-jade" aria-hidden="true" />{/if}
            <span
                >{checkName(c.code)}<span class="sr-only">, {CHECK_STATE[c.state]}</span
                >{#if c.state === 'attested'}<span class="block text-xs text-quiet"
                        >{c.evidence}{#if may.takeBack}&nbsp;· <button
                                class="underline underline-offset-4"
                                aria-label="Take it back: {checkName(c.code)}"
                                onclick={() => ontakeback(c.code)}>Take it back</button
                            >{/if}</span
                    >{/if}</span
            >
        </li>
    {/each}
</ul>
