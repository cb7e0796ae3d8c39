<script lang="ts">
    import { notices } from '../../shell/notices.svelte';
    import { access } from '../../api/access';
    import NewPassword from '../../parts/NewPassword.svelte';
    import SecondFactorSetUp from '../../parts/SecondFactorSetUp.svelte';
    import { session } from '../../shell/session.svelte';

    let opened = $state<'password' | 'second-factor' | null>(null);
    let current = $state('');
    let password = $state('');
    let again = $state('');
    let problem = $state<string | null>(null);

    async function change(event: SubmitEvent) {
        event.preventDefault();
        problem = password === again ? null : 'The two are not the same. Type the new one again.';
        if (problem !== null) return;
        try {
            await access.changePassword(current, password);
            current = password = again = '';
            opened = null;
            notices.success('Your new password counts. Your other sessions and your tokens have ended.');
        } catch (e) {
            problem = (e as Error).message;
        }
    }

    async function remove() {
        try {
            await access.removeSecondFactor();
            notices.success('Your second factor is gone: the password alone lets you in.');
        } catch (e) {
            notices.error((e as Error).message);
        }
        await session.look();
    }
</script>

<section class="panel" aria-labelledby="sign-in">
    <h2 id="sign-in" class="mb-1">Your sign-in</h2>
    <div class="flex flex-wrap items-center gap-3 text-sm">
        <span class="flex-1"
            >{session.person?.email}, {session.person?.secondFactor
                ? 'password and a code from your device'
                : 'password alone'}</span
        >
        <button
            class="act-quiet !min-h-9"
            aria-expanded={opened === 'password'}
            onclick={() => (opened = opened === 'password' ? null : 'password')}>Change the password</button
        >
        {#if session.person?.secondFactor}<button class="act-quiet !min-h-9" onclick={remove}
                >Take the second factor away</button
            >{:else}<button
                class="act-quiet !min-h-9"
                aria-expanded={opened === 'second-factor'}
                onclick={() => (opened = opened === 'second-factor' ? null : 'second-factor')}>Second factor…</button
            >{/if}
    </div>
    {#if opened === 'password'}
        <form
            class="mt-3 flex max-w-sm flex-col gap-3 border-t border-edge pt-3"
            onsubmit={change}
            oninput={() => (problem = null)}
        >
            <label class="flex flex-col gap-1"
                >Your password now<input
                    class="field"
                    type="password"
                    name="current-password"
                    autocomplete="current-password"
                    required
                    bind:value={current}
                /></label
            >
            <NewPassword bind:password bind:again />
            {#if problem !== null}<p class="rounded-md bg-amber-wash p-2 text-amber" role="alert">{problem}</p>{/if}
            <button class="act self-start">Change it</button>
        </form>
    {:else if opened === 'second-factor'}
        <div class="mt-3 border-t border-edge pt-3">
            <SecondFactorSetUp
                onset={() => {
                    opened = null;
                    void session.look();
                }}
            />
        </div>
    {/if}
</section>
