<script lang="ts">
    import { Footprints, X } from '@lucide/svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { router } from 'svelte-spa-router';
    import { api } from '../api/jobs';
    import { STAGE } from '../api/words';
    import { session } from './session.svelte';

    /** Leads a person through their first crossing, on the practice devices; the next step by where they are. */
    const guided = $derived((session.person?.preferences.guided ?? false) && session.mayAct);
    const id = $derived(Number(/^\/jobs\/(\d+)/.exec(router.location)?.[1] ?? 0));
    const bench = createQuery(() => ({
        queryKey: ['bench'],
        queryFn: api.bench,
        enabled: guided,
        refetchInterval: 3000,
    }));
    const job = $derived(bench.data?.open.find((j) => j.id === id));
    const over = $derived(bench.data?.ended.some((j) => j.state.startsWith('done')) ?? false);
    const free = $derived(
        bench.data?.benches.flatMap((b) => b.ports).find((p) => p.serial !== null && p.jobId === null && !p.byAir),
    );
    const first = $derived(bench.data?.open[0]);
    const rig = (serial: string) => `#/rig?device=${encodeURIComponent(serial)}`;
    const step = $derived.by((): { words: string; to?: [string, string] } => {
        if (router.location === '/rig')
            return {
                words: 'Here are the hands for the practice devices: answer what a device asks, and press its keys.',
                ...(first && { to: [`#/jobs/${first.id}`, 'Back to the job'] as [string, string] }),
            };
        if (job !== undefined) {
            const where = `${STAGE[job.stage]}: `;
            const atDevice = job.now.who === 'technician-at-device' || job.now.who === 'owner';
            if (atDevice && job.now.act !== 'attest')
                return {
                    words: `${where}${job.now.what}. On a practice device that is done on the Rig.`,
                    to: [rig(job.serial), 'To its hands on the Rig'],
                };
            return job.needsHand
                ? { words: `${where}${job.now.what}. What is to be done stands in the bar under the stones.` }
                : { words: `${where}it goes on by itself. Look on, or begin another device meanwhile.` };
        }
        if (over) return { words: 'Your first crossing has arrived. This guide can be put away now.' };
        if (first !== undefined)
            return {
                words: `Open the job of ${first.serial}: it tells what it wants next.`,
                to: [`#/jobs/${first.id}`, 'Open it'],
            };
        return router.location === '/'
            ? {
                  words: `These devices are for practice. Press “Take in” beside ${
                      free === undefined ? 'one of them' : free.serial
                  }: it is read first, and nothing on it changes.`,
              }
            : { words: 'A first crossing begins on the Bench, with a practice device.', to: ['#/', 'To the Bench'] };
    });
    const away = () => {
        const chosen = session.person?.preferences;
        if (chosen !== undefined) void session.prefer({ ...chosen, guided: false });
    };
</script>

<!-- It has its room before it knows its words: what is below must not move under a hand. -->
{#if guided}
    <aside
        class="mb-3 flex items-center gap-3 rounded-md border border-dashed border-jade px-4 py-2 print:hidden"
        aria-label="First crossing, step by step"
        data-guide
    >
        <Footprints size="1.25em" class="shrink-0 text-jade" aria-hidden="true" />
        <p class="flex-1">
            <span class="text-quiet">First crossing.</span>
            {bench.data ? step.words : 'Looking where you are…'}
        </p>
        {#if bench.data && step.to}<a class="act-quiet shrink-0" href={step.to[0]}>{step.to[1]}</a>{/if}
        <button class="act-quiet shrink-0 !px-2" aria-label="Put the guide away" onclick={away}
            ><X size="1.1em" aria-hidden="true" /></button
        >
    </aside>
{/if}
