<script lang="ts">
    import { ArrowRight, Hand, Hourglass, ShieldAlert, Undo2 } from '@lucide/svelte';
    import { install } from '../../api/install';
    import { api } from '../../api/jobs';
    import { returns } from '../../api/returns';
    import type { ActCode, Job, Stage } from '../../api/types';
    import { ACT, ACT_STAGE, STAGE } from '../../api/words';
    import Ask from '../../parts/Ask.svelte';
    import Countdown from '../../parts/Countdown.svelte';
    import { checkName, unchecked } from '../../parts/checks';
    import { minutes } from '../../parts/format';
    import { isTold, stageOf } from '../../parts/stages';
    import { notices } from '../../shell/notices.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';
    import { nextAct } from './nextact.svelte';
    import WriteOutForm from './WriteOutForm.svelte';

    /** The next hand, as the server tells it, with the button that does it or leads to where it is done. */
    let { job, shown }: { job: Job; shown: Stage } = $props();
    const at = $derived(stageOf(job));
    const now = $derived(job.now);

    // what needs nothing to be told is done here at once
    const atOnce: Partial<Record<ActCode, () => Promise<Job>>> = {
        'ask-to-pair': () => api.pair(job.id),
        'choose-again': () => api.chooseAgain(job.id),
        'back-up-again': () => api.backUpAgain(job.id),
        'end-look': () => returns.endLook(job.id),
    };
    const stageOfAct: Partial<Record<ActCode, Stage>> = ACT_STAGE;
    const call = jobAct((run: () => Promise<Job>) => run());
    const retry = jobAct(() => api.retry(job.id, now.step ?? 'pair'));
    const stops = $derived(job.may['cross-line'].checks);
    const unsworn = $derived(unchecked(job));
    const attest = jobAct(
        (codes: string[]) => api.attestTogether(job.id, codes),
        () => {
            const codes = [...given];
            notices.offerUndo('Your word was taken.', {
                label: 'Take it back',
                run: async () => {
                    for (const code of codes) await undo.mutateAsync(code);
                },
            });
        },
    );
    const undo = jobAct((code: string) => api.takeBack(job.id, code));
    let given: string[] = [];
    function vouch() {
        given = [...unsworn];
        attest.mutate(given);
    }
    const go = $derived(
        now.act === 'cross-line'
            ? `#/jobs/${job.id}/line`
            : `#/jobs/${job.id}/${(now.act === null ? null : stageOfAct[now.act]) ?? at}`,
    );
    const there = $derived(now.act !== 'cross-line' && (now.act === null || (stageOfAct[now.act] ?? at) === shown));
    const offer = $derived(there ? nextAct.of(now.act) : null);
    const again = $derived(
        now.act !== 'try-again' &&
            job.may['try-again'].allowed &&
            job.steps.some((s) => isTold(job, s) && s.state === 'failed'),
    );
    const code = $derived(job.steps.find((s) => isTold(job, s))?.problem?.code ?? null);
    const ended = $derived(job.state !== 'open');
    const aftercare = $derived(job.state === 'done' || job.state === 'done-with-losses');
    const tone = $derived(now.doNotDisturb || job.needsHand ? 'bg-amber-wash text-amber' : 'bg-sunken');
    const line = $derived(job.position === 'at-the-line' || job.position === 'safeguarding');
    const left = $derived(job.current?.secondsLeft != null ? job.current.secondsLeft / 60 : null);
    const forLine = $derived(
        line
            ? stops.filter((c) => job.checks.some((k) => k.code === c && k.state === 'fail') || unsworn.includes(c))
            : [],
    );
    let asking = $state(false);
</script>

<section
    class="my-3 rounded-md px-4 py-2 outline-offset-2 {tone}"
    aria-label="Now"
    aria-live="polite"
    tabindex="-1"
    data-now={now.who}
    data-act={now.act}
>
    <div class="flex min-h-11 flex-wrap items-center gap-x-4 gap-y-2">
        {#if ended}
            <p class="flex-1"><strong>{now.what}</strong> {now.why}</p>
            {#if aftercare && shown !== 'hand-over'}<a class="act-quiet" href="#/jobs/{job.id}/hand-over"
                    >{STAGE['hand-over']}</a
                >{/if}
        {:else}
            <div class="flex min-w-64 flex-1 items-start gap-2">
                {#if now.doNotDisturb}<ShieldAlert
                        size="1.4em"
                        class="shrink-0"
                        aria-hidden="true"
                    />{:else if job.needsHand}<Hand size="1.4em" class="shrink-0" aria-hidden="true" />{/if}
                <p>
                    <strong>{now.what}</strong>{#if now.doNotDisturb}<strong
                            >. Do not disturb: leave the cable in and the device alone.</strong
                        >{/if}
                    <span class="text-ink">{now.doNotDisturb && !job.needsHand ? '' : now.why}</span
                    >{#if code !== null}&nbsp;<span class="code text-xs !text-inherit">{code}</span>{/if}
                </p>
            </div>
            {#if session.mayAct}
                {#if now.act === 'attest' && unsworn.length > 0}<button
                        class="act shrink-0"
                        disabled={attest.isPending}
                        onclick={vouch}
                        >{unsworn.length === 1
                            ? 'I have checked it'
                            : unsworn.length === 2
                              ? 'I have checked both'
                              : `I have checked all ${unsworn.length}`}</button
                    >
                {:else if now.act !== null && atOnce[now.act] !== undefined}
                    {@const run = atOnce[now.act]}<button
                        class="act shrink-0"
                        disabled={call.isPending}
                        onclick={() => run && call.mutate(run)}>{ACT[now.act]}</button
                    >
                {:else if now.act === 'leave-recovery'}<button
                        class="act shrink-0"
                        disabled={call.isPending}
                        onclick={() => (asking = true)}>{ACT[now.act]}</button
                    >
                {:else if now.act === 'try-again'}<button
                        class="act shrink-0"
                        disabled={retry.isPending}
                        onclick={() => retry.mutate()}>{ACT[now.act]}</button
                    >
                {:else if offer !== null}<button
                        class="act shrink-0"
                        data-next-act
                        disabled={offer.disabled}
                        onclick={() => offer.run()}>{offer.label}</button
                    >
                {:else if now.act !== null && !there}<a class="act shrink-0" href={go}>{ACT[now.act]}</a>{/if}
            {/if}
            {#if at !== shown && (now.act === null || there)}<a class="act-quiet shrink-0" href="#/jobs/{job.id}/{at}"
                    >Go to {STAGE[at]}</a
                >{/if}
            {#if session.mayAct && again}<button
                    class="act-quiet shrink-0"
                    disabled={retry.isPending}
                    onclick={() => retry.mutate()}>{ACT['try-again']}</button
                >{/if}
        {/if}
    </div>
    {#if session.mayAct && job.position === 'at-the-line' && stops.includes('side-exports')}
        <div class="text-ink"><WriteOutForm {job} /></div>
    {/if}
    {#if !ended}
        <p class="flex flex-wrap items-center gap-x-5 gap-y-1 text-sm text-quiet">
            <span class="flex items-center gap-1.5"
                >{#if job.installBegun}<ArrowRight size="1.1em" aria-hidden="true" />{:else}<Undo2
                        size="1.1em"
                        aria-hidden="true"
                    />{/if}{job.undoWords}</span
            >
            {#if forLine.length > 1}<span
                    >{forLine.length} checks keep the erase line closed: {forLine.map(checkName).join(', ')}.</span
                >{/if}
            {#if left !== null}<span class="flex items-center gap-1.5"
                    ><Hourglass size="1.1em" aria-hidden="true" />this step about {minutes(left)} more</span
                >{/if}
            {#if job.minutesLeft !== null && job.minutesLeft > 0}<span
                    >{minutes(job.minutesLeft)} of the machine’s work ahead</span
                >{/if}
            {#if job.latestStart !== null && !job.installBegun}<Countdown until={job.latestStart} />{/if}
        </p>
    {/if}
</section>
<Ask
    bind:open={asking}
    title="Leave recovery mode without writing?"
    yes="Leave it"
    onyes={() => call.mutate(() => install.leaveRecovery(job.id))}
    >The device comes back as it was, and the job to before the erase line with its backup kept.</Ask
>
