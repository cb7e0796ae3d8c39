<script lang="ts">
    import { tick } from 'svelte';
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import Copied from '../../parts/Copied.svelte';
    import { dayAndClock } from '../../parts/format';
    import { times } from '../../parts/times.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const wanting = $derived(
        job.steps.find((s) => job.may['give-passphrase'].allowed && s.problem?.code === 'passphrase-wanted'),
    );
    const isNew = $derived(wanting?.code === 'back-up');
    let passphrase = $state('');
    let again = $state('');
    let offered = $state<string | null>(null);
    let printing = $state(false);
    async function printSlip() {
        printing = true;
        await tick();
        window.print();
        printing = false;
    }
    const give = jobAct(
        () => api.passphrase(job.id, passphrase, isNew ? again : null),
        () => {
            passphrase = '';
            again = '';
            offered = null;
        },
    );

    // of six words two are typed once more, so that they stand on paper before anything is closed with them
    let asked = $state<[number, number]>([0, 1]);
    let typed = $state(['', '']);
    const words = $derived((offered ?? '').split(/[\s-]+/).filter(Boolean));
    const holds = $derived(offered === null || asked.every((at, i) => typed[i]?.trim().toLowerCase() === words[at]));
    const NTH = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];

    async function offer() {
        offered = (await api.offer()).words;
        passphrase = again = offered;
        typed = ['', ''];
        const first = Math.floor(Math.random() * 3);
        asked = [first, 3 + Math.floor(Math.random() * 3)];
    }
</script>

{#if wanting}
    <form
        class="panel mb-3 border-2 border-amber-mark"
        onsubmit={(e) => {
            e.preventDefault();
            give.mutate();
        }}
        aria-label="Passphrase"
    >
        <p class="font-semibold">
            {isNew
                ? 'Choose the passphrase of this backup, with the owner'
                : 'The passphrase of this backup, once more'}
        </p>
        {#if !isNew}<p class="text-sm">{wanting.problem?.detail}</p>{/if}
        <p class="text-sm text-quiet">
            {isNew ? 'At least 12 characters. ' : ''}Without it nobody opens this backup, we neither. It is held
            encrypted while a step needs it, and then wiped.
        </p>
        <div class="mt-2 flex flex-wrap items-end gap-3">
            <label class="flex flex-1 flex-col"
                >Passphrase<input
                    class="field"
                    type="password"
                    name="passphrase"
                    autocomplete="off"
                    required
                    minlength={isNew ? 12 : 1}
                    bind:value={passphrase}
                /></label
            >
            {#if isNew}<label class="flex flex-1 flex-col"
                    >Again<input
                        class="field"
                        type="password"
                        name="again"
                        autocomplete="off"
                        required
                        bind:value={again}
                    /></label
                ><button type="button" class="act-quiet" onclick={offer}>Offer six words</button>{/if}
            <button class="act" disabled={give.isPending || !holds}>Go on with it</button>
        </div>
        {#if offered}
            <div class="mt-3 rounded-md bg-sunken p-3">
                <p>For the owner to write down:</p>
                <p class="text-lg font-semibold" data-offered><Copied text={offered} what="The six words" /></p>
                <p class="mt-2 flex flex-wrap items-center gap-3 text-sm">
                    <button type="button" class="act-quiet" onclick={() => void printSlip()}
                        >Print it for a sealed envelope</button
                    ><span class="text-quiet">Printed from this page alone; it is kept nowhere.</span>
                </p>
                <fieldset class="mt-3 flex flex-wrap items-end gap-3">
                    <legend class="text-sm">Read two of them back from the paper:</legend>
                    {#each asked as at, i (i)}<label class="flex flex-col text-sm"
                            >The {NTH[at]} word<input
                                class="field"
                                name="word-{i + 1}"
                                autocomplete="off"
                                autocapitalize="off"
                                spellcheck="false"
                                required
                                bind:value={typed[i]}
                            /></label
                        >{/each}
                    {#if typed.every((t) => t.trim() !== '') && !holds}<p class="text-sm text-amber" role="alert">
                            These are not the words that stand there. Read them once more.
                        </p>{/if}
                </fieldset>
            </div>
        {/if}
        {#if give.isError}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                {give.error.message}
            </p>{/if}
    </form>
{/if}
{#if printing && offered}
    <div class="slip" data-slip>
        <p class="text-xl font-semibold">Passphrase of a backup</p>
        <p>{job.variant ?? job.modelName ?? 'Device'}, serial {job.serial}</p>
        <p>{dayAndClock(new Date())} ({times.zoneName})</p>
        <p class="my-6 font-mono text-2xl">{offered}</p>
        <p>Without these words nobody opens the backup, we neither. Keep them apart from it, in a sealed envelope.</p>
        <p class="mt-8">Closed by: ____________________ &nbsp; Owner: ____________________</p>
    </div>
{/if}

<style>
    .slip {
        display: none;
    }
    @media print {
        .slip {
            display: block;
            position: fixed;
            inset: 0;
            z-index: 100;
            background: #fff;
            color: #000;
        }
    }
</style>
