<script lang="ts">
    import { ArrowRight, Hand, ShieldAlert, Undo2 } from '@lucide/svelte';
    import { install } from '../../api/install';
    import { api } from '../../api/jobs';
    import { returns } from '../../api/returns';
    import type { ActCode, Job, Stage } from '../../api/types';
    import { ACT, ACT_STAGE, STAGE } from '../../api/words';
    import { isTold, stageOf } from '../../parts/stages';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    /** The next hand, as the server tells it, with the button that does it or leads to where it is done. */
    let { job, shown }: { job: Job; shown: Stage } = $props();
    const at = $derived(stageOf(job));
    const now = $derived(job.now);

    // what needs nothing to be told is done here at once; the rest leads to its stage
    const atOnce: Partial<Record<ActCode, () => Promise<Job>>> = {
        'ask-to-pair': () => api.pair(job.id),
        'choose-again': () => api.chooseAgain(job.id),
        'back-up-again': () => api.backUpAgain(job.id),
        'end-look': () => returns.endLook(job.id),
        'leave-recovery': () => install.leaveRecovery(job.id),
    };
    const stageOfAct: Partial<Record<ActCode, Stage>> = ACT_STAGE;
    const call = jobAct((run: () => Promise<Job>) => run());
    const retry = jobAct(() => api.retry(job.id, now.step ?? 'pair'));
    const go = $derived(
        now.act === 'cross-line'
            ? `#/jobs/${job.id}/line`
            : `#/jobs/${job.id}/${(now.act === null ? null : stageOfAct[now.act]) ?? at}`,
    );
    const there = $derived(now.act !== 'cross-line' && (now.act === null || (stageOfAct[now.act] ?? at) === shown));
    const again = $derived(
        now.act !== 'try-again' &&
            job.may['try-again'].allowed &&
            job.steps.some((s) => isTold(job, s) && s.state === 'failed'),
    );
    const ended = $derived(job.state !== 'open');
    const aftercare = $derived(job.state === 'done' || job.state === 'done-with-losses');
    const tone = $derived(now.doNotDisturb || job.needsHand ? 'bg-amber-wash text-amber' : 'bg-sunken');
</script>

<section
    class="my-3 rounded-md px-4 py-2 {tone}"
    aria-label="Now"
    aria-live="polite"
    data-now={now.who}
    data-act={now.act}
>
    <div class="flex min-h-9 flex-wrap items-center gap-x-4 gap-y-1">
        {#if ended}
            <p class="flex-1"><strong>{now.what}</strong> {now.why}</p>
            {#if aftercare && shown !== 'hand-over'}<a class="act-quiet" href="#/jobs/{job.id}/hand-over"
                    >{STAGE['hand-over']}</a
                >{/if}
        {:else}
            <div class="flex min-w-0 flex-1 items-start gap-2">
                {#if now.doNotDisturb}<ShieldAlert
                        size={20}
                        class="mt-0.5 shrink-0"
                        aria-hidden="true"
                    />{:else if job.needsHand}<Hand size={20} class="mt-0.5 shrink-0" aria-hidden="true" />{/if}
                <p>
                    <strong>{now.what}</strong>{#if now.doNotDisturb}<strong
                            >. Do not disturb: leave the cable in and the device alone.</strong
                        >{/if} <span class="text-ink">{now.doNotDisturb && !job.needsHand ? '' : now.why}</span>
                </p>
            </div>
            {#if session.mayAct && now.act !== null && atOnce[now.act] !== undefined}
                {@const run = atOnce[now.act]}<button
                    class="act shrink-0"
                    disabled={call.isPending}
                    onclick={() => run && call.mutate(run)}>{ACT[now.act]}</button
                >
            {:else if session.mayAct && now.act === 'try-again'}<button
                    class="act shrink-0"
                    disabled={retry.isPending}
                    onclick={() => retry.mutate()}>{ACT[now.act]}</button
                >
            {:else if session.mayAct && now.act !== null && !there}<a class="act shrink-0" href={go}>{ACT[now.act]}</a>
            {:else if at !== shown}<a class="act-quiet shrink-0" href="#/jobs/{job.id}/{at}"
                    >Go to {STAGE[at]} <span class="key">n</span></a
                >{/if}
            {#if session.mayAct && again}<button
                    class="act-quiet shrink-0"
                    disabled={retry.isPending}
                    onclick={() => retry.mutate()}>{ACT['try-again']}</button
                >{/if}
        {/if}
    </div>
    {#if !ended}
        <p class="flex items-center gap-2 text-sm text-quiet">
            {#if job.installBegun}<ArrowRight size={16} aria-hidden="true" />{:else}<Undo2
                    size={16}
                    aria-hidden="true"
                />{/if}{job.undoWords}
        </p>
    {/if}
</section>
