<script lang="ts">
    import { onMount } from 'svelte';
    import { replace } from 'svelte-spa-router';
    import { access } from '../api/access';
    import NewPassword from '../parts/NewPassword.svelte';
    import SignInFrame from './SignInFrame.svelte';

    let { token }: { token: string } = $props();
    let name = $state<string | null>(null);
    let problem = $state<string | null>(null);
    let password = $state('');
    let again = $state('');
    let set = $state(false);

    onMount(async () => {
        try {
            name = (await access.link(token)).name;
        } catch (e) {
            problem = (e as Error).message;
        }
    });

    async function submit(event: SubmitEvent) {
        event.preventDefault();
        problem = password === again ? null : 'The two are not the same. Type it again.';
        if (problem !== null) return;
        try {
            await access.useLink(token, password);
            set = true;
        } catch (e) {
            problem = (e as Error).message;
        }
    }
</script>

<SignInFrame title="New password">
    <form class="flex max-w-sm flex-col gap-4" onsubmit={submit} oninput={() => (problem = null)}>
        {#if set}
            <p class="rounded-md bg-jade-wash p-3 text-jade-strong" role="status">
                Your new password counts from now on. You were signed out everywhere.
            </p>
            <button type="button" class="act" onclick={() => void replace('/')}>Sign in</button>
        {:else}
            {#if name !== null}<p>A new password for <span class="font-semibold">{name}</span>.</p>
                <NewPassword bind:password bind:again />{/if}
            {#if problem !== null}<p class="rounded-md bg-amber-wash p-3 text-amber" role="alert">{problem}</p>{/if}
            {#if name !== null}<button class="act">Set the password</button>
            {:else if problem !== null}<button type="button" class="act-quiet" onclick={() => void replace('/')}
                    >To the sign-in</button
                >{/if}
        {/if}
    </form>
</SignInFrame>
