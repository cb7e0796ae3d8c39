<script lang="ts">
    import Logo from './Logo.svelte';
    import { session } from './session.svelte';

    let email = $state('');
    let password = $state('');
    let busy = $state(false);

    async function submit(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        await session.signIn(email, password);
        busy = false;
    }
</script>

<svelte:head><title>Sign in · Jade Step</title></svelte:head>
<main class="grid min-h-screen grid-cols-[1fr_minmax(0,0.8fr)]">
    <section class="flex flex-col justify-center px-[10vw]">
        <div class="mb-8 flex items-center gap-3">
            <Logo />
            <h1 class="text-2xl">Jade Step</h1>
        </div>
        <form class="flex max-w-sm flex-col gap-4" onsubmit={submit}>
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
                    type="password"
                    name="password"
                    autocomplete="current-password"
                    required
                    bind:value={password}
                /></label
            >
            {#if session.error !== null}<p class="rounded-md bg-amber-wash p-3 text-amber" role="alert">
                    {session.error}
                </p>{/if}
            <button class="act" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
        </form>
    </section>
    <aside class="relative overflow-hidden bg-water" aria-hidden="true">
        <svg viewBox="0 0 560 800" preserveAspectRatio="xMidYMid slice" class="absolute inset-0 h-full w-full">
            <path d="M0 0h70c-30 130 30 260 0 400s30 270 0 400H0z" fill="var(--paper)" />
            {#each [[95, 690], [170, 580], [255, 470], [335, 355], [405, 240], [462, 130]] as [x, y], i (i)}
                <ellipse
                    cx={x}
                    cy={y}
                    rx={52 - i * 3}
                    ry={25 - i * 1.5}
                    fill={i < 3 ? 'var(--jade)' : 'var(--panel)'}
                    stroke="var(--jade)"
                    stroke-width="2"
                />
            {/each}
        </svg>
    </aside>
</main>
