<script lang="ts">
    import { push } from 'svelte-spa-router';
    import { api } from '../../api/jobs';
    import type { Job, StepCode } from '../../api/types';
    import { dayAndClock, kindName, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import { stepsOf } from '../../parts/stages';
    import StepLine from '../../parts/StepLine.svelte';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const retry = jobAct((code: StepCode) => api.retry(job.id, code));
    const handOver = jobAct(() => api.handOver(job.id), () => void push('/'));
    const proof = $derived(job.proof);
    const ready = $derived(job.steps.find((s) => s.code === 'hand-over')?.state === 'needs-hand');
    const endings: Record<string, string> = { kept: 'kept on the device', returned: 'back through sync', 'sign-in-again': 'sign in again by hand', 're-enter': 'enter again by hand', lost: 'lost, as named before', 'returned-as-of': 'back, but out of date', 'at-risk': 'at risk, as named before' };
</script>

{#if proof === null}
    <section class="panel max-w-3xl py-1" aria-label="Steps">{#each stepsOf(job, 'hand-over') as step (step.code + step.leg)}<StepLine {step} onretry={session.mayAct ? () => retry.mutate(step.code) : null} />{/each}</section>
{:else}
    <Notice tone={proof.nothingLost ? 'jade' : proof.missing > 0 ? 'loss' : 'amber'}>
        <p class="text-lg font-semibold">{proof.nothingLost ? 'Nothing missing.' : proof.missing > 0 ? `${proof.missing} items are missing.` : 'Every item is back; what the plan named as lost is lost.'}</p>
        <p class="text-sm">{version(proof.before.version)} ({proof.before.build}) → {version(proof.after.version)} ({proof.after.build}); the backup’s inventory against the device’s own listing, {dayAndClock(proof.comparedAt)}.</p>
    </Notice>
    <div class="mt-4 grid items-start grid-cols-[1.4fr_1fr] gap-4">
        <section class="panel" aria-labelledby="proof">
            <h2 id="proof" class="mb-2">Item by item</h2>
            <table class="w-full text-sm">
                <thead class="text-left text-quiet"><tr><th class="font-normal">Kind</th><th class="text-right font-normal">Came back</th><th class="pl-6 font-normal">What differs</th></tr></thead>
                <tbody>
                    {#each proof.kinds as k (k.kind)}
                        <tr class="border-t border-edge {k.missing.length > 0 ? 'text-loss' : ''}" data-kind={k.kind}>
                            <th scope="row" class="py-1 text-left font-normal">{kindName(k.kind)}</th><td class="text-right font-semibold">{k.same + k.changed.length} of {k.before}</td>
                            <td class="pl-6">{#if k.missing.length > 0}missing: {k.missing.slice(0, 3).join(', ')}{k.missing.length > 3 ? ` and ${k.missing.length - 3} more` : ''}{/if}{#if k.changed.length > 0}rewritten by the device itself: <span class="font-mono">{k.changed.join(', ')}</span>{/if}{#if k.extra.length > 0} {k.extra.length} new{/if}</td>
                        </tr>
                    {/each}
                </tbody>
            </table>
        </section>
        <section class="panel" aria-labelledby="others">
            <h2 id="others" class="mb-2">What no plain backup carries</h2>
            <ul class="text-sm">{#each proof.others as o (o.kind)}<li class="flex justify-between gap-4 border-t border-edge py-1"><span>{kindName(o.kind)}</span><span>{endings[o.outcome] ?? o.outcome} <span class="text-quiet">({o.after} of {o.before} there now)</span></span></li>{/each}</ul>
            {#if ready && session.mayAct}<button class="act mt-4 w-full" disabled={handOver.isPending} onclick={() => handOver.mutate()}>Hand over and end the job</button>{/if}
        </section>
    </div>
{/if}
