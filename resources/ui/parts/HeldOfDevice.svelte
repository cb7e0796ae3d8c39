<script lang="ts">
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { ApiProblem } from '../api/client';
    import { exportAddress, privacy } from '../api/privacy';
    import { notices } from '../shell/notices.svelte';
    import { session } from '../shell/session.svelte';
    import { bytes, counted, dayAndClock } from './format';

    let { serial }: { serial: string } = $props();
    const queries = useQueryClient();
    const held = createQuery(() => ({ queryKey: ['held', serial], queryFn: () => privacy.held(serial) }));
    let asking = $state(false);
    let typed = $state('');
    const forget = createMutation(() => ({
        mutationFn: () => privacy.forget(serial, typed),
        onSuccess: () => {
            asking = false;
            typed = '';
            void queries.invalidateQueries();
        },
        onError: (e: Error) => {
            if (!(e instanceof ApiProblem && e.atField)) notices.refused(e);
        },
    }));
    const d = $derived(held.data);
    const words = $derived(
        d === undefined
            ? ''
            : [
                  `${counted(d.bags, 'backup')}, ${bytes(d.bytes)}`,
                  d.secondCopies > 0 ? `${d.secondCopies} of them at the second place too` : '',
                  d.sideExports > 0 ? counted(d.sideExports, 'written-out kind') : '',
                  d.notes > 0 ? 'the holder’s contact and notes' : '',
                  counted(d.jobs, 'job'),
              ]
                  .filter((part) => part !== '')
                  .join('; '),
    );
</script>

{#if d !== undefined}
    <section class="panel text-sm" aria-labelledby="held-{serial}" data-held={serial}>
        <h2 id="held-{serial}" class="mb-1">What is held of this device</h2>
        <p>{words}.</p>
        {#if d.forgottenAt !== null}<p class="mt-1 text-quiet">
                Its owner was forgotten {dayAndClock(d.forgottenAt)}: of earlier jobs only counts are left.
            </p>{/if}
        <div class="mt-2 flex flex-wrap gap-2">
            {#if session.mayAct}<a class="act-quiet" href={exportAddress(serial)} download
                    >Take all of it out as a ZIP</a
                >{/if}
            {#if session.leads && d.openJob === null && !asking}<button
                    class="act-quiet text-loss"
                    onclick={() => (asking = true)}>Forget this owner</button
                >{/if}
        </div>
        {#if asking}
            <form
                class="mt-2 rounded-md border border-loss p-3"
                onsubmit={(e) => {
                    e.preventDefault();
                    forget.mutate();
                }}
            >
                <p>
                    <strong>Backups, contacts, notes and lists of items go for good</strong>, here and at the second
                    place. Counts, builds and minutes stay, and so does the Journal.
                </p>
                <label class="mt-2 flex flex-col gap-1"
                    >Type the serial {serial}<input
                        class="field font-mono"
                        name="serial"
                        autocomplete="off"
                        required
                        bind:value={typed}
                    /></label
                >
                <div class="mt-2 flex gap-2">
                    <button class="act-quiet border-loss text-loss" disabled={forget.isPending || typed.trim() === ''}
                        >{forget.isPending ? 'Forgetting…' : 'Forget this owner'}</button
                    ><button class="act-quiet" type="button" onclick={() => (asking = false)}>Keep all of it</button>
                </div>
            </form>
        {/if}
        {#if session.leads && d.openJob !== null}<p class="mt-1 text-quiet">
                Its owner can be forgotten when job {d.openJob} has ended.
            </p>{/if}
    </section>
{/if}
