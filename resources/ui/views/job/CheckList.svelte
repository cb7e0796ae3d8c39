<script lang="ts">
    import { Check as Tick, CircleHelp, CircleSlash, UserCheck } from '@lucide/svelte';
    import Countdown from '../../parts/Countdown.svelte';
    import type { Check } from '../../api/types';

    let { checks, mayAct, lockDelayEndsAt = null, onattest }: { checks: Check[]; mayAct: boolean; lockDelayEndsAt?: string | null; onattest: (code: string) => void } = $props();

    const names: Record<string, string> = {
        paired: 'Paired with this computer', 'model-resolved': 'Exact model known', 'owner-lock-off': 'Owner lock off', 'lock-delay': 'Lock delay over', 'owner-account-at-hand': 'Owner’s account at hand',
        'passcode-known': 'Passcode known', battery: 'Battery', 'disk-space': 'Disk space', 'backup-complete': 'Backup complete', 'backup-verified': 'Backup verified', 'sealed-copy': 'Copy sealed', 'passphrase-proven': 'Passphrase opened this bag', 'side-exports': 'Side exports written', link: 'Steady link', 'host-agent': 'Host agent', permit: 'Permit, asked for at the install',
        'accessory-accepted': 'Accessories accepted', 'apps-accepted': 'Apps accepted', 'package-verified': 'Package verified', 'almanac-fresh': 'Almanac fresh', 'beta-enrolment': 'Not in the beta programme',
    };
    const words = { pass: 'passes', fail: 'fails', unknown: 'not known', attested: 'attested' };
    const byHand = ['owner-account-at-hand', 'passcode-known'];
    const open = $derived(checks.filter((c) => (c.state === 'fail' || c.state === 'unknown') && c.code !== 'permit'));
    const good = $derived(checks.filter((c) => c.state === 'pass' || c.state === 'attested'));
</script>

<ul>
    {#each open as c (c.code)}
        <li class="flex items-start gap-2 border-t border-edge py-2" data-check={c.code} data-state={c.state}>
            {#if c.state === 'fail'}<CircleSlash size={20} class="mt-0.5 shrink-0 text-amber" aria-hidden="true" />{:else}<CircleHelp size={20} class="mt-0.5 shrink-0 text-amber" aria-hidden="true" />{/if}
            <span class="flex-1"><span class="font-semibold">{names[c.code] ?? c.code}</span> <span class="text-sm text-quiet">{words[c.state]} <span class="code">{c.code}</span></span><span class="block text-sm">{c.mend} {c.evidence}</span>{#if c.code === 'lock-delay' && lockDelayEndsAt !== null}<span class="block text-sm"><Countdown until={lockDelayEndsAt} ahead="the delay ends in" past="the delay ended" /></span>{/if}</span>
            {#if mayAct && byHand.includes(c.code)}<button class="act-quiet shrink-0" onclick={() => onattest(c.code)}>I have checked</button>{/if}
        </li>
    {/each}
</ul>
<ul class="mt-1 grid grid-cols-2 gap-x-4 border-t border-edge pt-2 text-sm">
    {#each good as c (c.code)}
        <li class="flex items-start gap-1.5 py-0.5" data-check={c.code} data-state={c.state} title={c.evidence}>
            {#if c.state === 'pass'}<Tick size={16} class="mt-0.5 shrink-0 text-jade" aria-hidden="true" />{:else}<UserCheck size={16} class="mt-0.5 shrink-0 text-jade" aria-hidden="true" />{/if}
            <span>{names[c.code] ?? c.code}<span class="sr-only">, {words[c.state]}</span>{#if c.state === 'attested'}<span class="block text-xs text-quiet">{c.evidence}</span>{/if}</span>
        </li>
    {/each}
</ul>
