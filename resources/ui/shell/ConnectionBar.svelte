<script lang="ts">
    import { CloudOff } from '@lucide/svelte';
    import { onMount } from 'svelte';
    import { client } from '../api/client';
    import { clock } from '../parts/format';
    import { connection } from './connection.svelte';

    const AGAIN_MS = 2000;
    const ADVICE =
        'What you see may be old. Keep this page open: what you have typed stays, and it is asked again by itself.';
    const lost = $derived(connection.lostAt);
    onMount(() => {
        const gone = () => connection.silent();
        window.addEventListener('offline', gone);
        return () => window.removeEventListener('offline', gone);
    });
    $effect(() => {
        if (lost === null) return;
        const timer = setInterval(() => void client.GET('/alive').catch(() => null), AGAIN_MS);
        return () => clearInterval(timer);
    });
</script>

<div aria-live="assertive">
    {#if lost !== null}<p
            class="flex items-center gap-3 bg-amber-wash px-6 py-2 text-amber print:hidden"
            data-connection="lost"
        >
            <CloudOff size="1.25em" class="shrink-0" aria-hidden="true" /><span
                ><strong>No answer from the server since {clock(lost)}.</strong>
                {ADVICE}</span
            >
        </p>{/if}
</div>
