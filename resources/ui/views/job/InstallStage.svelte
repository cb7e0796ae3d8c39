<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { MOVE } from '../../api/words';
    import { bytes, version } from '../../parts/format';
    import Copied from '../../parts/Copied.svelte';
    import Notice from '../../parts/Notice.svelte';
    import { isTold, stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import ConfirmPanel from './ConfirmPanel.svelte';
    import { jobAct } from './job.svelte';
    import LookFirst from './LookFirst.svelte';
    import OnwardPanel from './OnwardPanel.svelte';
    import RecoveryPanel from './RecoveryPanel.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const legs = $derived(job.route?.legs ?? []);
    const waiting = $derived(
        job.steps.find((s) => s.code === 'enter-recovery' && s.state !== 'done' && s.state !== 'waiting'),
    );
    const failed = $derived(stepsOf(job, 'install').find((s) => s.state === 'failed'));
</script>

{#if !job.lineCrossed}
    <Notice
        >The install begins on the other side of the erase line. Nothing here can happen before it is crossed.</Notice
    >
{:else}
    <div class="grid items-start @4xl:grid-cols-[1.4fr_1fr] gap-4">
        <div class="flex flex-col gap-4">
            {#if job.may['confirm-install'].allowed}<ConfirmPanel {job} />{/if}
            {#if waiting}<RecoveryPanel {job} step={waiting} />{/if}
            <section class="panel divide-y divide-edge py-1" aria-label="Steps">
                {#each stepsOf(job, 'install') as step (step.code + step.leg)}<StepLine
                        {step}
                        told={step === waiting || isTold(job, step)}
                        leg={legs.length > 1
                            ? `leg ${step.leg + 1}, ${version(legs[step.leg]?.to.version ?? '')}`
                            : null}
                        onretry={session.mayAct ? () => retry.mutate(step.code) : null}
                    />{/each}
            </section>
            {#if failed && !job.may['go-onward'].allowed}<p class="text-sm text-quiet">
                    Try again asks for a new permit. Another cable or another port may be taken first: the device is
                    known again wherever it is plugged in.{#if job.may['leave-recovery'].allowed}
                        Nothing has been written yet, so the way out is open too.{/if}
                </p>{/if}
            {#if job.may['go-onward'].allowed}<OnwardPanel {job} />{/if}
        </div>
        <section class="panel" aria-labelledby="what">
            <h2 id="what" class="mb-2">What is being installed</h2>
            {#each legs as leg, i (i)}
                <div class={i > 0 ? 'mt-3 border-t border-edge pt-3' : ''}>
                    <p>
                        <span class="font-semibold">{version(leg.to.version)}</span>
                        <Copied text={leg.to.build} what="Build" />
                        <span class="text-sm text-quiet">{legs.length > 1 ? `leg ${i + 1}, ` : ''}{MOVE[leg.move]}</span
                        >
                    </p>
                    <p class="font-mono text-xs break-all text-quiet">
                        {leg.package.fileName}, {bytes(leg.package.bytes)}
                    </p>
                    <p class="text-xs text-quiet"><Copied text={leg.package.sha256} what="Digest" /></p>
                </div>
            {/each}
            <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 text-sm">
                <dt class="text-quiet">Line crossed by</dt>
                <dd>{job.lineCrossedBy}</dd>
            </dl>
            <LookFirst {job} />
            <p class="mt-3 text-sm text-quiet">
                Leave the cable in while the device is written to. If it is not recognised after its restart, unplug it
                and plug it in again, at any port: the job goes on by itself. Where it asks for its passcode or its
                owner’s account, that is entered on the device, never here.
            </p>
        </section>
    </div>
{/if}
