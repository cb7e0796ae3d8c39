<script lang="ts">
    import { untrack } from 'svelte';
    import { session } from './session.svelte';

    /** Asks who somebody is: address and password, then the code where there is a second factor. */
    let { known = '', onbegin }: { known?: string; onbegin: () => void } = $props();
    let email = $state(untrack(() => known));
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
        <label class="flex min-h-6 items-center gap-2"
            ><input type="checkbox" class="h-5 w-5 accent-[var(--jade)]" bind:checked={shown} />show it</label
        >
    {/if}
    {#if session.error !== null}<p class="rounded-md bg-amber-wash p-3 text-amber" role="alert">
            {session.error}
        </p>{/if}
    <button class="act" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
    {#if session.codeWanted}<button type="button" class="act-quiet" onclick={onbegin}>Begin again</button>
    {:else}<p class="text-sm text-quiet">Forgotten? A lead gives you a link by which you set a new password.</p>{/if}
</form>
