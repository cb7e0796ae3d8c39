<script lang="ts">
    import { Check, Ear, Play, RotateCcw } from '@lucide/svelte';
    import { onDestroy, untrack } from 'svelte';
    import { install } from '../../api/install';
    import type { Job, Step } from '../../api/types';
    import Term from '../../parts/Term.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';
    import KeyOutline from './KeyOutline.svelte';
    import { keyName, keyWords, Pace } from './recovery.svelte';

    let { job, step }: { job: Job; step: Step } = $props();
    const pace = new Pace(untrack(() => job.recoveryKeys));
    const byCable = jobAct(() => install.askOverCable(job.id));
    const leave = jobAct(() => install.leaveRecovery(job.id));
    const lost = $derived(step.problem?.code === 'recovery-not-seen');
    const told = $derived(job.place?.keysHeard ?? null);
    const seen = $derived(job.place !== null);
    $effect(() => {
        if (told !== null) pace.follow(told);
    });
    onDestroy(() => pace.stop());
    const on = $derived(pace.beat !== null ? pace.beat.key : told !== null && told > 0 ? told : null);
    const held = $derived.by(() => {
        const beat = pace.beat;
        return beat === null || !pace.inBeat || pace.at === null ? 0 : (pace.at - beat.from) / beat.seconds;
    });
    const taken = $derived(Math.max(pace.heard, told ?? 0));
    const hearing = $derived(
        !seen
            ? 'The device is not seen: it restarts, or its cable is out.'
            : told === null
              ? 'This link does not tell which keys the device hears: go by the pace.'
              : told === 0
                ? 'The device is seen, and has heard no key of the sequence yet.'
                : `The device has heard ${told} of ${job.recoveryKeys.length} keys.`,
    );
</script>

<section class="panel border-2 border-amber-mark" aria-labelledby="recovery">
    <h2 id="recovery">Put the device in <Term of="recovery-mode" /></h2>
    <p class="text-sm text-quiet">
        Leave the cable in: without it these keys only restart the device. It is recognised by itself; until it is told
        to install, nothing on it changes.
    </p>
    <div class="mt-3 flex flex-wrap items-center gap-x-6 gap-y-3">
        <KeyOutline keys={pace.keys} form={job.form} {on} {taken} {held} />
        <div class="min-w-60 flex-1">
            <ol class="flex flex-col" aria-label="Keys in their order">
                {#each pace.keys as k, i (i)}
                    {@const now = on === i && (pace.beat === null || pace.inBeat)}
                    <li
                        class={[
                            'flex min-h-11 items-center gap-3 border-l-4 px-3',
                            now ? 'border-amber-mark bg-amber-wash' : i < taken ? 'border-jade' : 'border-edge',
                        ]}
                        aria-current={now ? 'step' : undefined}
                    >
                        <span class="flex-1 {now ? 'text-lg font-semibold' : ''}">{keyWords(k)}</span>
                        {#if i < taken}<Check size="1.2em" class="text-jade" aria-hidden="true" /><span
                                class="text-sm text-quiet">heard</span
                            >{/if}
                    </li>
                {/each}
            </ol>
            <p class="mt-2 flex items-center gap-2 text-sm text-quiet" data-heard>
                <Ear size="1.2em" class="shrink-0" aria-hidden="true" />{hearing}
            </p>
            <p class="mt-2 min-h-8 text-xl font-semibold" aria-live="assertive">
                {#if pace.beat !== null}{@const k =
                        pace.keys[pace.beat.key]}{#if k !== undefined}{#if pace.inBeat}{k.action === 'hold'
                                ? `Keep holding ${keyName(k.target)}: ${pace.left} s`
                                : `Now press ${keyName(k.target)}`}{:else}Next: {keyWords(k)} in {pace.left}
                            s{/if}{/if}
                {:else if lost}<span class="text-base text-amber">{step.problem?.detail}</span>{/if}
            </p>
        </div>
    </div>
    {#if pace.keys.length === 0}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber">
            The almanac does not tell this model’s keys. Look in the maker’s instructions, or have it asked over the
            cable.
        </p>{/if}
    {#if session.mayAct}
        <div class="mt-2 flex flex-wrap gap-3">
            <button class="act" disabled={pace.keys.length === 0} onclick={() => pace.start()}
                >{#if pace.at === null}<Play size="1.15em" aria-hidden="true" />Pace me{:else}<RotateCcw
                        size="1.15em"
                        aria-hidden="true"
                    />From the first key{/if}</button
            >
            <button class="act-quiet" disabled={byCable.isPending} onclick={() => byCable.mutate()}
                >Ask it over the cable instead</button
            >
            {#if job.may['leave-recovery'].allowed}<button
                    class="act-quiet ml-auto"
                    disabled={leave.isPending}
                    onclick={() => leave.mutate()}>Leave without writing</button
                >{/if}
        </div>
        {#if job.may['leave-recovery'].allowed}<p class="mt-2 text-sm text-quiet">
                Leaving brings the device back as it was, and the job to before the erase line with its backup kept.
            </p>{/if}
    {/if}
</section>
