<script lang="ts">
    import { Dialog } from 'bits-ui';
    import { access } from '../api/access';
    import { confirmation } from './confirmation.svelte';

    let password = $state('');
    let problem = $state<string | null>(null);
    let busy = $state(false);

    async function submit(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = null;
        try {
            await access.confirm(password);
            leave(true);
        } catch (e) {
            problem = (e as Error).message;
        }
        busy = false;
    }

    function leave(given: boolean) {
        password = '';
        problem = null;
        confirmation.answer(given);
    }
</script>

<Dialog.Root bind:open={() => confirmation.isAsked, (open) => open || leave(false)}>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content class="panel dialog z-50 w-[28rem]">
            <Dialog.Title class="text-lg font-semibold">Your password, once more</Dialog.Title>
            <Dialog.Description class="mt-1 text-sm"
                >This concerns people, keys, or what cannot be had back. It holds for five minutes.</Dialog.Description
            >
            <form class="mt-3 flex flex-col gap-3" onsubmit={submit}>
                <label class="flex flex-col gap-1"
                    >Password<input
                        class="field"
                        type="password"
                        name="password-again"
                        autocomplete="current-password"
                        required
                        bind:value={password}
                    /></label
                >
                {#if problem !== null}<p class="rounded-md bg-amber-wash p-2 text-amber" role="alert">{problem}</p>{/if}
                <div class="flex justify-end gap-2">
                    <Dialog.Close class="act-quiet" type="button">Not now</Dialog.Close><button
                        class="act"
                        disabled={busy}>Go on</button
                    >
                </div>
            </form>
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
