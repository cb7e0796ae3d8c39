<script lang="ts">
    import { returns } from '../../api/returns';
    import type { Job, Return } from '../../api/types';
    import { CLOUD_OUTCOME, OVERLAY_STATE } from '../../api/words';
    import { kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';

    let { job, told, mayAct }: { job: Job; told: Return; mayAct: boolean } = $props();
    const say = jobAct((to: { what: string; state: 'attested' | 'not-waited' | 'refused' }) =>
        returns.say(job.id, to.what, to.state),
    );
    // what was sent to a device that then broke it off, or refused it, is not there
    const failed = $derived(job.steps.some((s) => s.code === 'put-back' && s.state === 'failed'));
    const kinds = $derived(failed ? [] : Object.entries(told.tally));
    const overlays = $derived(Object.entries(told.overlays));
    const overlayWords = (o: Return['overlays'][string]) =>
        `${OVERLAY_STATE[o.state]}${o.by === null ? '' : `, says ${o.by}`}, ${o.there} of ${o.before}`;
    const cloudWaits = $derived(
        job.steps.some((s) => s.problem?.code === 'cloud-return-wanted' || s.problem?.code === 'cloud-return-partly'),
    );
</script>

{#if kinds.length > 0 || overlays.length > 0 || cloudWaits}
    <section class="panel" aria-labelledby="tally">
        <h2 id="tally" class="mb-1">By kind</h2>
        {#if kinds.length > 0}
            <ul class="grid grid-cols-2 gap-x-6 text-sm">
                {#each kinds as [kind, [done = 0, of = 0]] (kind)}
                    <li class="grid grid-cols-[7.5rem_1fr_5.5rem] items-center gap-2 py-0.5" data-tally={kind}>
                        <span>{kindName(kind)}</span><span
                            class="h-2 overflow-hidden rounded-full bg-sunken"
                            aria-hidden="true"
                            ><span
                                class="block h-full rounded-full bg-jade"
                                style:width="{of === 0 ? 0 : Math.min(1, done / of) * 100}%"
                            ></span></span
                        ><span class="text-right text-quiet">{done} of {of}</span>
                    </li>
                {/each}
            </ul>
        {/if}
        {#if told.cloud !== null}<p class="mt-2 text-sm">{CLOUD_OUTCOME[told.cloud]}</p>{/if}
        {#if cloudWaits && mayAct && job.may['tick-overlay'].allowed}<div class="mt-2 flex flex-wrap gap-2">
                <button class="act-quiet" onclick={() => say.mutate({ what: 'cloud', state: 'attested' })}
                    >This is all that the cloud held</button
                >
                <button class="act-quiet" onclick={() => say.mutate({ what: 'cloud', state: 'refused' })}
                    >The device refused it</button
                >
                <button class="act-quiet" onclick={() => say.mutate({ what: 'cloud', state: 'not-waited' })}
                    >Do not wait for it</button
                >
            </div>{/if}
        {#if overlays.length > 0}
            <h3 class="mt-3 text-sm text-quiet">Over it, by sync</h3>
            <ul class="text-sm">
                {#each overlays as [kind, o] (kind)}
                    <li
                        class="flex items-center gap-3 border-t border-edge py-1"
                        data-overlay={kind}
                        data-state={o.state}
                    >
                        <span class="w-36">{kindName(kind)}</span><span
                            class="{o.state === 'waiting' ? 'text-amber' : 'text-quiet'} flex-1">{overlayWords(o)}</span
                        >
                        {#if o.state === 'waiting' && mayAct && job.may['tick-overlay'].allowed}
                            <button
                                class="act-quiet !min-h-9"
                                onclick={() => say.mutate({ what: kind, state: 'attested' })}>It has arrived</button
                            >
                            <button
                                class="act-quiet !min-h-9"
                                onclick={() => say.mutate({ what: kind, state: 'not-waited' })}
                                >Do not wait for it</button
                            >
                        {/if}
                    </li>
                {/each}
            </ul>
        {/if}
    </section>
{/if}
