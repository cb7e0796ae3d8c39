<script lang="ts">
    import { Check, CircleDashed, Hand, LoaderCircle, OctagonAlert } from '@lucide/svelte';
    import type { Step } from '../api/types';
    import { STEP_STATE } from '../api/words';
    import { bytes, clock, minutes } from './format';
    import { wayOf } from './mends';
    import { phaseWords } from './stages';

    let {
        step,
        onretry = null,
        leg = null,
        told = false,
    }: { step: Step; onretry?: (() => void) | null; leg?: string | null; told?: boolean } = $props();

    const running = $derived(step.state === 'running' || (step.state === 'ready' && step.attempt > 0));
</script>

<div class="flex gap-3 py-2.5" data-step={step.code} data-leg={step.leg} data-state={step.state}>
    <span class="mt-0.5 w-6 shrink-0">
        {#if step.state === 'done'}<Check size="1.4em" class="text-jade" />
        {:else if step.state === 'failed'}<OctagonAlert size="1.4em" class="text-loss" />
        {:else if step.state === 'needs-hand' || step.problem !== null}<Hand size="1.4em" class="text-amber" />
        {:else if running}<LoaderCircle size="1.4em" class="animate-spin text-jade" />
        {:else}<CircleDashed size="1.4em" class="text-quiet" />{/if}
    </span>
    <div class="min-w-0 flex-1">
        <p class="flex items-baseline justify-between gap-3">
            <span class={step.state === 'waiting' ? 'text-quiet' : 'font-semibold'}
                >{step.title}{#if leg !== null}<span class="font-normal text-quiet">{` · ${leg}`}</span>{/if}</span
            >
            <span class="text-sm text-quiet">
                {#if step.state === 'done' && step.endedAt !== null}done at {clock(
                        step.endedAt,
                    )}{#if step.startedAt !== null && !step.byHand}, took {minutes(
                            (Date.parse(step.endedAt) - Date.parse(step.startedAt)) / 60000,
                        )}{/if}
                {:else}{STEP_STATE[step.problem !== null && step.state !== 'failed' ? 'needs-hand' : step.state]}{/if}
            </span>
        </p>
        {#if running && step.problem === null}
            <div
                class="mt-1 h-2.5 overflow-hidden rounded-full bg-sunken"
                role="progressbar"
                aria-label={step.title}
                aria-valuemin="0"
                aria-valuemax="100"
                aria-valuenow={step.progress === null ? undefined : Math.round(step.progress * 100)}
            >
                <div
                    class="h-full rounded-full bg-jade transition-[width] duration-500 {step.progress === null
                        ? 'w-full animate-pulse opacity-40'
                        : ''}"
                    style:width={step.progress === null ? undefined : `${step.progress * 100}%`}
                ></div>
            </div>
            <p class="mt-1 flex flex-wrap gap-x-4 text-sm text-quiet">
                <span>{phaseWords(step)}</span>
                {#if step.bytesTotal !== null}<span>{bytes(step.bytesDone)} of {bytes(step.bytesTotal)}</span>{/if}
                {#if step.bytesPerSecond !== null}<span>{bytes(step.bytesPerSecond)}/s</span>{/if}
                {#if step.secondsLeft !== null}<span>about {minutes(step.secondsLeft / 60)} left</span>{/if}
            </p>
        {/if}
        {#if step.problem !== null && !told}
            <div
                class="mt-1 rounded-md p-2 {step.state === 'failed'
                    ? 'bg-loss-wash text-loss'
                    : 'bg-amber-wash text-amber'}"
                role="alert"
            >
                {step.problem.detail}
                <span class="code text-xs !text-inherit">{step.problem.code}</span
                >{#if wayOf(step.problem.code) !== null}&nbsp;<a
                        class="underline underline-offset-4"
                        href={wayOf(step.problem.code)?.href}>{wayOf(step.problem.code)?.words}</a
                    >{/if}
            </div>
        {/if}
        {#if step.state === 'failed' && onretry !== null}<button class="act mt-2" onclick={onretry}>Try again</button
            >{/if}
    </div>
</div>
