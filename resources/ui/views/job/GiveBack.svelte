<script lang="ts">
    import { Dialog } from 'bits-ui';
    import { push } from 'svelte-spa-router';
    import { handover } from '../../api/handover';
    import type { Job } from '../../api/types';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    let open = $state(false);
    let reason = $state('');
    const give = jobAct(
        () => handover.giveBack(job.id, reason),
        () => {
            open = false;
            void push('/');
        },
    );
</script>

<Dialog.Root bind:open>
    <Dialog.Trigger class="act-quiet ml-auto">Give back unfinished</Dialog.Trigger>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content class="panel dialog z-30 w-[34rem] p-2">
            <Dialog.Title class="text-lg font-semibold">Give the device back unfinished</Dialog.Title>
            <Dialog.Description class="mt-1 text-sm"
                >{#if job.eraseBegun}
                    It has been erased, and its data may not be back. The sealed copy stays on the Shelf, so that the
                    rest can be done another day.
                {:else}
                    The install has begun. The sealed copy stays on the Shelf.
                {/if}
                The job ends with your reason, and stays in the Journal.</Dialog.Description
            >
            <form
                class="mt-3 flex flex-col gap-3"
                onsubmit={(e) => {
                    e.preventDefault();
                    give.mutate();
                }}
            >
                <label class="flex flex-col"
                    >Reason<textarea
                        class="field py-2"
                        rows="3"
                        required
                        minlength="8"
                        maxlength="500"
                        bind:value={reason}></textarea></label
                >
                {#if give.isError}<p class="rounded-md bg-amber-wash p-2 text-amber" role="alert">
                        {give.error.message}
                    </p>{/if}
                <div class="flex justify-end gap-2">
                    <Dialog.Close class="act-quiet">Go on with the job</Dialog.Close><button
                        class="act"
                        disabled={give.isPending}>Give it back and end the job</button
                    >
                </div>
            </form>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
