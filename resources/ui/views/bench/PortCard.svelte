<script lang="ts">
    import { link } from 'svelte-spa-router';
    import type { Port } from '../../api/types';
    import { version } from '../../parts/format';

    let { port, mayAct, busy, onopen }: { port: Port; mayAct: boolean; busy: boolean; onopen: (serial: string) => void } = $props();
</script>

<li class="panel flex items-center gap-3 p-3">
    <span class="grid h-10 w-10 shrink-0 place-items-center rounded-full bg-sunken font-mono text-sm" title="Port {port.port}"><span class="sr-only">Port</span>{port.port}</span>
    {#if port.serial === null}
        <p class="text-quiet">A device is plugged in, but not recognised just now. It may be restarting.</p>
    {:else}
        <div class="min-w-0 flex-1">
            <p class="font-semibold">{port.modelName}</p>
            <p class="code">{port.serial} · {version(port.version ?? '')}{port.mode === 'recovery' ? ' · recovery mode' : ''}</p>
        </div>
        {#if port.jobId !== null}
            <a class="act-quiet" href="/jobs/{port.jobId}" use:link>Go to its job</a>
        {:else if mayAct}
            <button class="act" disabled={busy} onclick={() => onopen(port.serial ?? '')}>Take in</button>
        {/if}
    {/if}
</li>
