<script lang="ts">
    import { session } from './session.svelte';
    import SignInFrame from './SignInFrame.svelte';

    let email = $state('');
    let password = $state('');
    let code = $state('');
    let busy = $state(false);
    let shown = $state(false);

    async function submit(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        await (session.codeWanted ? session.giveCode(code) : session.signIn(email, password));
        code = '';
        busy = false;
    }
</script>

<SignInFrame title="Sign in">
    <form class="flex max-w-sm flex-col gap-4" onsubmit={submit}>
        {#if session.codeWanted}
            <p>Your password is right. Now the code that your device shows, or one of your recovery codes.</p>
            <!-- svelte-ignore a11y_autofocus -->
            <label class="flex flex-col gap-1"
                >Code<input
                    class="field font-mono"
                    name="code"
                    autocomplete="one-time-code"
                    autofocus
                    required
                    bind:value={code}
                /></label
            >
        {:else}
            <label class="flex flex-col gap-1"
                >Address<input
                    class="field"
                    type="email"
                    name="email"
                    autocomplete="username"
                    required
                    bind:value={email}
                /></label
            >
            <label class="flex flex-col gap-1"
                >Password<input
                    class="field"
                    type={shown ? 'text' : 'password'}
                    name="password"
                    autocomplete="current-password"
                    required
                    bind:value={password}
                /></label
            >
            <label class="flex items-center gap-2 text-sm"
                ><input type="checkbox" class="h-4 w-4 accent-[var(--jade)]" bind:checked={shown} />show it</label
            >
        {/if}
        {#if session.error !== null}<p class="rounded-md bg-amber-wash p-3 text-amber" role="alert">
                {session.error}
            </p>{/if}
        <button class="act" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
        {#if session.codeWanted}<button type="button" class="act-quiet" onclick={() => session.lost()}
                >Begin again</button
            >{:else}<p class="text-sm text-quiet">
                Forgotten? A lead gives you a link by which you set a new password.
            </p>{/if}
    </form>
</SignInFrame>
