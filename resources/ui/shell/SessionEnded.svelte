<script lang="ts">
    import { Dialog } from 'bits-ui';
    import { session } from './session.svelte';
    import SignInForm from './SignInForm.svelte';
</script>

<Dialog.Root open={session.hasEnded}>
    <Dialog.Portal>
        <Dialog.Overlay class="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content
            class="panel dialog z-50 w-[28rem]"
            escapeKeydownBehavior="ignore"
            interactOutsideBehavior="ignore"
            data-session-ended
        >
            <Dialog.Title class="text-lg font-semibold">Your session has ended</Dialog.Title>
            <Dialog.Description class="mt-1 mb-3 text-sm"
                >Sign in again to go on where you are. What you have typed is still there.</Dialog.Description
            >
            <SignInForm known={session.person?.email ?? ''} onbegin={() => session.beginAgain()} />
            <button class="mt-3 text-sm underline underline-offset-4" onclick={() => session.giveUp()}
                >Leave this page instead</button
            >
        </Dialog.Content>
    </Dialog.Portal>
</Dialog.Root>
