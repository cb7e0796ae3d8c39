<script lang="ts">
    import { Play, RotateCcw } from '@lucide/svelte';
    import { onDestroy, untrack } from 'svelte';
    import { install } from '../../api/install';
    import type { Job, Step } from '../../api/types';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';
    import { keyName, keyWords, Pace } from './recovery.svelte';

    let { job, step }: { job: Job; step: Step } = $props();
    const pace = new Pace(untrack(() => job.recoveryKeys));
    const byCable = jobAct(() => install.askOverCable(job.id));
    const leave = jobAct(() => install.leaveRecovery(job.id));
    const lost = $derived(step.problem?.code === 'recovery-not-seen');
    onDestroy(() => pace.stop());
</script>

<section class="panel border-2 border-amber-mark" aria-labelledby="recovery">
    <h2 id="recovery">Put the device in recovery mode</h2>
    <p class="text-sm text-quiet">
        Leave the cable in: without it these keys only restart the device. It is recognised by itself; until it is told
        to install, nothing on it changes.
    </p>
    <ol class="mt-3 flex flex-wrap items-stretch gap-2" aria-label="Keys in their order">
        {#each pace.keys as k, i (i)}
            {@const beat = pace.beats[i]}
            {@const on = pace.beat?.key === i && pace.inBeat}
            {@const over = pace.at !== null && beat !== undefined && pace.at >= beat.from + beat.seconds}
            <li
                class="relative min-w-36 flex-1 overflow-hidden rounded-md border-2 px-3 py-2 {on
                    ? 'border-amber-mark bg-amber-wash'
                    : over
                      ? 'border-jade bg-jade-wash'
                      : 'border-edge'}"
                aria-current={on ? 'step' : undefined}
            >
                {#if on && beat !== undefined}<span
                        class="absolute inset-x-0 bottom-0 h-1.5 bg-amber-mark"
                        style:width="{(((pace.at ?? 0) - beat.from) / beat.seconds) * 100}%"
                        aria-hidden="true"
                    ></span>{/if}
                <span class="text-sm text-quiet">{i + 1}{over ? ' · done' : on ? ' · now' : ''}</span>
                <span class="block font-semibold">{k.action === 'hold' ? 'Hold' : 'Press'} {keyName(k.target)}</span>
                <span class="block text-sm">{k.action === 'hold' ? `${k.seconds} seconds` : 'once, shortly'}</span>
            </li>
        {/each}
    </ol>
    {#if pace.keys.length === 0}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber">
            The almanac does not tell this model’s keys. Look in the maker’s instructions, or have it asked over the
            cable.
        </p>{/if}
    <p class="mt-3 min-h-7 text-lg font-semibold" aria-live="assertive">
        {#if pace.beat !== null}{@const k = pace.keys[pace.beat.key]}{#if k !== undefined}{#if pace.inBeat}{k.action ===
                    'hold'
                        ? `Keep holding ${keyName(k.target)}: ${pace.left} s`
                        : `Now press ${keyName(k.target)}`}{:else}Next: {keyWords(k)} in {pace.left} s{/if}{/if}
        {:else if lost}<span class="text-amber">{step.problem?.detail}</span>{/if}
    </p>
    {#if session.mayAct}
        <div class="mt-1 flex flex-wrap gap-3">
            <button class="act" disabled={pace.keys.length === 0} onclick={() => pace.start()}
                >{#if pace.at === null}<Play size={18} aria-hidden="true" />Pace me{:else}<RotateCcw
                        size={18}
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
