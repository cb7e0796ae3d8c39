<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { BAG_STATE } from '../../api/words';
    import { bagWords } from '../../parts/bag';
    import { isComing } from '../../parts/checks';
    import Copied from '../../parts/Copied.svelte';
    import Notice from '../../parts/Notice.svelte';
    import PackageFile from '../../parts/PackageFile.svelte';
    import { isTold, stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { notices } from '../../shell/notices.svelte';
    import { session } from '../../shell/session.svelte';
    import CheckList from './CheckList.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const again = jobAct(() => api.backUpAgain(job.id));
    const takeBack = jobAct((code: string) => api.takeBack(job.id, code));
    let last = '';
    const attest = jobAct(
        (code: string) => {
            last = code;
            return api.attest(job.id, code);
        },
        () => {
            const code = last;
            notices.offerUndo('Your word was taken.', { label: 'Take it back', run: () => takeBack.mutateAsync(code) });
        },
    );
    const fetching = $derived(job.steps.some((s) => s.code === 'fetch-package' && s.state !== 'done'));
    const line = $derived(job.steps.find((s) => s.code === 'cross-line'));
    const crosses = $derived(job.stages.includes('choose'));
    const bag = $derived(job.bags.filter((b) => b.loweredFrom === null).at(-1));
    const broken = $derived(
        bag?.state === 'damaged' ||
            job.steps.some((s) => ['verify-backup', 'back-up', 'seal-backup'].includes(s.code) && s.state === 'failed'),
    );
    const stopping = $derived(job.may['cross-line'].checks.length);
</script>

{#if crosses && job.route === null}
    <Notice>First choose a route. Nothing is backed up or fetched before that.</Notice>
{:else}
    <div class="grid items-start gap-4 @4xl:grid-cols-2">
        <section class="panel divide-y divide-edge py-1" aria-label="Steps">
            {#each stepsOf(job, 'safeguard') as step (step.code + step.leg)}<StepLine
                    {step}
                    told={isTold(job, step)}
                    onretry={session.mayAct && !step.code.includes('backup') ? () => retry.mutate(step.code) : null}
                />{/each}
            {#if session.mayAct && fetching}<details class="py-2 text-sm">
                    <summary class="cursor-pointer">I have this package as a file</summary>
                    <div class="mt-2"><PackageFile /></div>
                </details>{/if}
        </section>
        <div class="flex flex-col gap-4">
            {#if bag !== undefined}
                <section class="panel py-3 {broken ? 'border-loss' : ''}" aria-labelledby="bag">
                    <h2 id="bag">The backup: {BAG_STATE[bag.state]}</h2>
                    <p class="mt-1 font-semibold">{bag.label}</p>
                    <p class="mb-1 text-xs"><Copied text={bag.id} what="Name of the folder" /></p>
                    <p class="text-sm">
                        {bagWords(bag)}.
                    </p>
                    {#if bag.faults.length > 0}<ul class="mt-2 text-sm text-loss">
                            {#each bag.faults.slice(0, 4) as f, i (i)}<li>
                                    <span class="font-mono">{f.path}</span>: {f.code}{f.detail === ''
                                        ? ''
                                        : `, ${f.detail}`}
                                </li>{/each}
                        </ul>{/if}
                    {#if session.mayAct && job.may['back-up-again'].allowed && job.now.act !== 'back-up-again'}<button
                            class="{broken ? 'act' : 'act-quiet'} mt-3"
                            disabled={again.isPending}
                            onclick={() => again.mutate()}>Back up again</button
                        >{/if}
                </section>
            {/if}
            {#if crosses}<section class="panel py-3" aria-labelledby="checks">
                    <h2 id="checks" class="mb-1">
                        {job.lineCrossed ? 'What was proven at the erase line' : 'Before the erase line'}
                    </h2>
                    <CheckList
                        checks={job.checks}
                        coming={(code) => isComing(job, code)}
                        lockDelayEndsAt={job.device?.lockDelayEndsAt ?? null}
                        writeOut={session.mayAct && job.state === 'open' ? job : null}
                        may={{
                            attest: session.mayAct && job.may.attest.allowed,
                            takeBack: session.mayAct && job.may['take-back-attestation'].allowed,
                        }}
                        onattest={(code) => attest.mutate(code)}
                        ontakeback={(code) => takeBack.mutate(code)}
                    />
                    {#if line?.state === 'needs-hand' && session.mayAct}
                        {#if !job.may['cross-line'].allowed}<p class="mt-3 rounded-md bg-amber-wash p-3 text-amber">
                                {stopping > 0
                                    ? stopping === 1
                                        ? 'One check keeps the erase line closed.'
                                        : `${stopping} checks keep the erase line closed.`
                                    : job.may['cross-line'].words}
                            </p>{/if}
                    {/if}
                </section>{/if}
        </div>
    </div>
{/if}
