<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { link } from 'svelte-spa-router';
    import type { AlarmCode, Watching } from '../../api/types';
    import { watching } from '../../api/watching';
    import { ALARM } from '../../api/words';
    import { dayAndClock } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { bell } from '../../shell/bell.svelte';
    import { notices } from '../../shell/notices.svelte';
    import HealthList from './HealthList.svelte';
    import Webhooks from './Webhooks.svelte';

    let { leads }: { leads: boolean } = $props();
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['watching'], queryFn: watching.show, refetchInterval: 15_000 }));
    const codes = Object.keys(ALARM) as AlarmCode[];
    const choose = createMutation(() => ({
        mutationFn: watching.choose,
        onSuccess: (told) => queries.setQueryData(['watching'], told),
        onError: (e: Error) => notices.refused(e),
    }));
    const trial = createMutation(() => ({
        mutationFn: watching.tryMail,
        onSuccess: () => notices.success('A mail is on its way to you.'),
        onError: (e: Error) => notices.refused(e),
    }));
    const set = (change: Partial<Watching['chosen']>) => {
        if (held.data) choose.mutate({ ...held.data.chosen, ...change });
    };
    const toggle = (code: AlarmCode, on: boolean) => {
        if (!held.data) return;
        const without = held.data.chosen.byMail.filter((c) => c !== code);
        set({ byMail: on ? [...without, code] : without });
    };
    const tellInBrowser = async (on: boolean) => {
        if (on && !(await bell.allow())) {
            notices.error('This browser does not allow it: say yes to notifications of this page in its settings.');
        }
        set({ inBrowser: on && bell.isAllowed });
        bell.on = on && bell.isAllowed;
    };
    const STATE = {
        waiting: 'waits to go out',
        going: 'is going out',
        sent: 'sent',
        failed: 'could not be sent',
        unknown: 'may have gone out, not sent again',
    };
</script>

<section class="panel" aria-labelledby="watching">
    <h2 id="watching" class="mb-1">Watching</h2>
    <HealthList />
    {#if held.data}{@const chosen = held.data.chosen}
        <h3 class="mt-4 text-sm font-semibold">You are told by mail</h3>
        <div class="mt-1 grid gap-x-6 text-sm @xl:grid-cols-2">
            {#each codes as code (code)}<label class="flex min-h-9 items-center gap-2"
                    ><input
                        type="checkbox"
                        class="h-4 w-4 accent-[var(--jade)]"
                        name={code}
                        checked={chosen.byMail.includes(code)}
                        onchange={(e) => toggle(code, e.currentTarget.checked)}
                    />{ALARM[code]}</label
                >{/each}
        </div>
        <div class="text-sm">
            <label class="flex min-h-9 items-center gap-2"
                ><input
                    type="checkbox"
                    class="h-4 w-4 accent-[var(--jade)]"
                    name="inBrowser"
                    checked={chosen.inBrowser}
                    onchange={(e) => void tellInBrowser(e.currentTarget.checked)}
                />This browser tells of hands wanted, while another page is in front</label
            >
        </div>
        <div class="mt-2 flex flex-wrap items-center gap-3 text-sm">
            <label class="flex items-center gap-2"
                >when a hand is wanted for longer than<input
                    class="field !min-h-9 w-20"
                    type="number"
                    min="0"
                    max="1440"
                    name="handMinutes"
                    value={chosen.handMinutes}
                    onchange={(e) => set({ handMinutes: e.currentTarget.valueAsNumber })}
                />minutes</label
            >
            <button
                class="act-quiet !min-h-9"
                disabled={trial.isPending || !held.data.mailIsSetUp}
                onclick={() => trial.mutate()}>Send me a mail to try it</button
            >
            <span class="text-quiet">Mail goes to {held.data.address}.</span>
        </div>
        {#if !held.data.mailIsSetUp}<div class="mt-2">
                <Notice
                    >No mail server is set up, so nothing goes out by mail. Whoever runs this server names one in its
                    settings (MAIL_DSN and MAIL_FROM).</Notice
                >
            </div>{/if}
        {#if leads}<Webhooks webhooks={held.data.webhooks} />{/if}
        <h3 class="mt-4 text-sm font-semibold">What was raised of late</h3>
        {#if held.data.messages.length === 0}<p class="text-sm text-quiet">Nothing was.</p>
        {:else}
            <ul class="mt-1 max-h-96 overflow-auto text-sm">
                {#each held.data.messages as m (m.id)}
                    <li class="border-t border-edge py-1.5" data-message={m.alarm}>
                        <a
                            class="underline decoration-edge underline-offset-4 hover:decoration-jade"
                            href={m.path}
                            use:link>{m.subject}</a
                        >
                        <span class="text-quiet"
                            >{ALARM[m.alarm]}, {dayAndClock(m.raisedAt)}{m.endedAt === null
                                ? ''
                                : `, over ${dayAndClock(m.endedAt)}`}</span
                        >
                        {#each m.sendings as s, i (i)}<span
                                class="block {s.state === 'failed' || s.state === 'unknown' || s.problem !== null
                                    ? 'text-amber'
                                    : 'text-quiet'}"
                                >{s.by === 'mail' ? 'Mail' : 'Webhook'} to {s.to}: {STATE[s.state]}{s.sentAt === null
                                    ? ''
                                    : `, ${dayAndClock(s.sentAt)}`}{s.problem === null ? '' : `. ${s.problem}`}</span
                            >{/each}
                    </li>
                {/each}
            </ul>
        {/if}
    {:else if held.isError}<Notice tone="amber">{held.error.message}</Notice>{/if}
</section>
