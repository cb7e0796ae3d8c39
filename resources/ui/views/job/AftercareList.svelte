<script lang="ts">
    import { Check, Circle, Eye, Info } from '@lucide/svelte';
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { handover } from '../../api/handover';
    import type { AftercarePoint, HandOver, Job } from '../../api/types';
    import { AFTERCARE_STATE } from '../../api/words';
    import { clock, dayAndClock } from '../../parts/format';

    let { job, told, proven, mayAct }: { job: Job; told: HandOver; proven: number; mayAct: boolean } = $props();
    const queries = useQueryClient();
    const shown = {
        onSuccess: (t: HandOver) => void queries.setQueryData(['hand-over', job.id, proven], t),
        onError: (e: Error) => notices.refused(e),
    };
    const look = createMutation(() => ({ mutationFn: () => handover.look(job.id), ...shown }));
    const say = createMutation(() => ({
        mutationFn: (p: AftercarePoint) => handover.say(job.id, p.code, p.state === 'open'),
        ...shown,
    }));
    // for thirty days after the hand-over too
    const mayTick = $derived(mayAct && job.may['tick-aftercare'].allowed);
    const icons = { open: Circle, seen: Eye, attested: Check, told: Info };
    const open = $derived(told.aftercare.filter((p) => p.state === 'open').length);
</script>

<section class="panel py-3" aria-labelledby="aftercare">
    <div class="mb-1 flex items-center gap-3">
        <h2 id="aftercare">Aftercare{open > 0 ? `: ${open} to do` : ''}</h2>
        {#if mayAct && job.state === 'open'}<button
                class="act-quiet ml-auto !min-h-9 text-sm"
                disabled={look.isPending}
                onclick={() => look.mutate()}>{look.isPending ? 'Reading…' : 'Read the device'}</button
            >{/if}
    </div>
    {#if told.readAt !== null}<p class="text-sm text-quiet">Read at {clock(told.readAt)}.</p>{/if}
    <ul class="text-sm">
        {#each told.aftercare as p (p.code)}
            {@const Icon = icons[p.state]}
            <li class="flex items-start gap-2 border-t border-edge py-1.5" data-aftercare={p.code} data-state={p.state}>
                <Icon
                    size="1.1em"
                    class="mt-0.5 shrink-0 {p.state === 'open' ? 'text-amber' : 'text-jade'}"
                    aria-hidden="true"
                />
                <span class="min-w-0 flex-1"
                    >{p.words}{#if p.names.length > 0}<span class="block text-quiet">{p.names.join('; ')}</span
                        >{/if}{#if p.state !== 'told'}<span
                            class="block {p.state === 'open' ? 'text-amber' : 'text-quiet'}"
                            >{AFTERCARE_STATE[p.state]}{p.by === null
                                ? ''
                                : `, says ${p.by}, ${dayAndClock(p.at ?? '')}`}</span
                        >{/if}</span
                >
                {#if mayTick && (p.state === 'open' || p.state === 'attested')}<button
                        class="act-quiet !min-h-9 shrink-0"
                        aria-label="{p.state === 'open' ? 'Done' : 'Take back'}: {p.words}"
                        onclick={() => say.mutate(p)}>{p.state === 'open' ? 'Done' : 'Take back'}</button
                    >{/if}
            </li>
        {:else}<li class="text-quiet">Nothing is left to do.</li>{/each}
    </ul>
</section>
