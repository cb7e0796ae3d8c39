<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { ApiProblem } from '../../api/client';
    import type { AlarmCode, Watching } from '../../api/types';
    import { watching } from '../../api/watching';
    import { ALARM } from '../../api/words';
    import Ask from '../../parts/Ask.svelte';
    import Copied from '../../parts/Copied.svelte';
    import { notices } from '../../shell/notices.svelte';

    type Hook = Watching['webhooks'][number];
    let { webhooks }: { webhooks: Hook[] } = $props();
    const queries = useQueryClient();
    const again = () => void queries.invalidateQueries({ queryKey: ['watching'] });
    const codes = Object.keys(ALARM) as AlarmCode[];
    let draft = $state<{ name: string; address: string; alarms: AlarmCode[]; handMinutes: number } | null>(null);
    let secret = $state<string | null>(null);
    let leaving = $state<Hook | null>(null);
    const fail = (e: Error) => {
        if (!(e instanceof ApiProblem && e.atField)) notices.refused(e);
    };
    const add = createMutation(() => ({
        mutationFn: watching.addWebhook,
        onSuccess: (made) => {
            draft = null;
            secret = made.secret;
            again();
        },
        onError: fail,
    }));
    const remove = createMutation(() => ({ mutationFn: watching.removeWebhook, onSettled: again, onError: fail }));
    const trial = createMutation(() => ({
        mutationFn: watching.tryWebhook,
        onSuccess: () => notices.success('It has taken the trial.'),
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<h3 class="mt-4 flex items-center gap-3 text-sm font-semibold">
    Webhooks <button
        class="act-quiet !min-h-8 text-sm font-normal"
        onclick={() =>
            (draft = draft === null ? { name: '', address: '', alarms: ['hand-wanted'], handMinutes: 10 } : null)}
        >{draft === null ? 'Add a webhook' : 'Not now'}</button
    >
</h3>
{#if secret !== null}<p class="mt-1 rounded-md bg-jade-wash p-2 text-sm">
        What both sign with, shown this once: <Copied text={secret} what="What both sign with" />
    </p>{/if}
{#if draft !== null}{@const d = draft}
    <form
        class="mt-1 grid grid-cols-2 gap-3 text-sm"
        onsubmit={(e) => {
            e.preventDefault();
            add.mutate(d);
        }}
    >
        <label class="flex flex-col gap-1"
            >Name<input class="field" required maxlength="100" name="name" bind:value={d.name} /></label
        >
        <label class="flex flex-col gap-1"
            >Address<input
                class="field font-mono"
                required
                placeholder="https://"
                name="address"
                bind:value={d.address}
            /></label
        >
        <fieldset class="col-span-2 grid gap-x-6 @xl:grid-cols-2">
            <legend class="sr-only">Of what it is told</legend>
            {#each codes as code (code)}<label class="flex min-h-8 items-center gap-2"
                    ><input
                        type="checkbox"
                        class="h-4 w-4 accent-[var(--jade)]"
                        value={code}
                        bind:group={d.alarms}
                    />{ALARM[code]}</label
                >{/each}
        </fieldset>
        <label class="flex items-center gap-2"
            >a hand wanted for longer than<input
                class="field !min-h-9 w-20"
                type="number"
                min="0"
                max="1440"
                bind:value={d.handMinutes}
            />minutes</label
        >
        <div><button class="act" disabled={add.isPending || d.alarms.length === 0}>Add it</button></div>
    </form>
{/if}
{#each webhooks as w (w.id)}
    <div class="mt-1 flex flex-wrap items-center gap-3 border-t border-edge pt-1 text-sm" data-webhook={w.name}>
        <span class="min-w-0 flex-1"
            ><strong class="font-semibold">{w.name}</strong>
            <span class="font-mono break-all">{w.address}</span>
            <span class="block text-quiet">{w.alarms.map((a) => ALARM[a]).join(', ')}</span></span
        >
        <button class="act-quiet !min-h-8" disabled={trial.isPending} onclick={() => trial.mutate(w.id)}>Try it</button>
        <button class="act-quiet !min-h-8" onclick={() => (leaving = w)}>Remove</button>
    </div>
{:else}{#if draft === null}<p class="text-sm text-quiet">No other program is told anything.</p>{/if}{/each}
<Ask
    open={leaving !== null}
    title="Tell this program nothing any more?"
    yes="Tell it nothing"
    no="Go on telling it"
    onyes={() => leaving !== null && remove.mutate(leaving.id)}
    onno={() => (leaving = null)}>{leaving?.name}: what is on its way still goes out.</Ask
>
