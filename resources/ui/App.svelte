<script lang="ts">
    import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
    import { Toaster } from 'svelte-sonner';
    import { onMount } from 'svelte';
    import { ApiProblem } from './api/client';
    import { session } from './shell/session.svelte';
    import { router } from 'svelte-spa-router';
    import LinkedPassword from './shell/LinkedPassword.svelte';
    import SecondFactorDue from './shell/SecondFactorDue.svelte';
    import Shell from './shell/Shell.svelte';
    import SignIn from './shell/SignIn.svelte';
    import { theme } from './shell/theme.svelte';

    const signedOut = (error: unknown) => error instanceof ApiProblem && error.status === 401 && session.lost();
    const queries = new QueryClient({
        queryCache: new QueryCache({ onError: signedOut }),
        mutationCache: new MutationCache({ onError: signedOut }),
        defaultOptions: { queries: { retry: false, refetchOnWindowFocus: true, networkMode: 'always' } },
    });

    /** What a lead's link for a new password holds. */
    const link = $derived(/^\/new-password\/([0-9a-f]+)$/.exec(router.location)?.[1]);

    onMount(() => {
        theme.apply();
        void session.look();
    });
</script>

<QueryClientProvider client={queries}>
    {#if link !== undefined}
        <LinkedPassword token={link} />
    {:else if session.state === 'in' && session.person?.secondFactorDue}
        <SecondFactorDue />
    {:else if session.state === 'in'}
        <Shell />
    {:else if session.state === 'out'}
        <SignIn />
    {:else}
        <p class="p-8 text-quiet" role="status">Opening Jade Step…</p>
    {/if}
</QueryClientProvider>
<Toaster position="bottom-right" theme={theme.dark ? 'dark' : 'light'} closeButton />
