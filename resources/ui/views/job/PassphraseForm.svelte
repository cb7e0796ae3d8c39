<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const wanting = $derived(
        job.steps.find((s) => job.may['give-passphrase'].allowed && s.problem?.code === 'passphrase-wanted'),
    );
    const isNew = $derived(wanting?.code === 'back-up');
    let passphrase = $state('');
    let again = $state('');
    let offered = $state<string | null>(null);
    const give = jobAct(
        () => api.passphrase(job.id, passphrase, isNew ? again : null),
        () => {
            passphrase = '';
            again = '';
            offered = null;
        },
    );

    async function offer() {
        offered = (await api.offer()).words;
        passphrase = again = offered;
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
            <button class="act" disabled={give.isPending}>Go on with it</button>
        </div>
        {#if offered}<p class="mt-2">
                For the owner to write down: <strong class="font-mono text-lg">{offered}</strong>
            </p>{/if}
        {#if give.isError}<p class="mt-2 rounded-md bg-amber-wash p-2 text-amber" role="alert">
                {give.error.message}
            </p>{/if}
    </form>
{/if}
