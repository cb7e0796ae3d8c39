<script lang="ts">
    import { FolderDown, FolderUp, Wifi } from '@lucide/svelte';
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { link } from 'svelte-spa-router';
    import { notices } from '../../shell/notices.svelte';
    import { shelf } from '../../api/shelf';
    import type { Port } from '../../api/types';
    import { version } from '../../parts/format';

    let {
        port,
        silent,
        mayAct,
        busy,
        onopen,
        onbackup,
        onreturn,
    }: {
        port: Port;
        silent: boolean;
        mayAct: boolean;
        busy: boolean;
        onopen: (serial: string) => void;
        onbackup: (serial: string) => void;
        onreturn: (serial: string) => void;
    } = $props();
    const queries = useQueryClient();
    const agree = createMutation(() => ({
        mutationFn: (does: boolean) =>
            does ? shelf.agreeNear(port.serial ?? '') : shelf.withdrawNear(port.serial ?? ''),
        onSuccess: () => void queries.invalidateQueries({ queryKey: ['bench'] }),
        onError: (e: Error) => notices.refused(e),
    }));
</script>

<li class="flex min-h-14 items-center gap-2 px-2.5 py-1.5">
    <span
        class="grid h-9 w-9 shrink-0 place-items-center rounded-full font-mono text-sm {port.occupied
            ? 'bg-jade-wash'
            : 'border border-dashed border-quiet text-quiet'}"
        title={port.byAir ? 'near by air' : `Port ${port.port}`}
        >{#if port.byAir}<Wifi size="1.15em" aria-hidden="true" /><span class="sr-only">Near by air</span>{:else}<span
                class="sr-only">Port</span
            >{port.port}{/if}</span
    >
    {#if silent}
        <p class="text-sm text-quiet">{port.label || 'not known while the link is silent'}</p>
    {:else if !port.occupied}
        <p class="text-sm text-quiet">free{port.label ? ` · ${port.label}` : ''}</p>
    {:else if port.serial === null}
        <p class="text-sm text-quiet">Plugged in, but not recognised just now. It may be restarting.</p>
    {:else}
        <div class="min-w-0 flex-1 leading-tight">
            <p class="font-semibold">
                {port.modelName}{#if port.label}<span class="ml-2 text-sm font-normal text-quiet">{port.label}</span
                    >{/if}
            </p>
            <p class="code whitespace-nowrap">
                {port.serial} · {version(port.version ?? '')}{port.mode === 'recovery' ? ' · recovery mode' : ''}
            </p>
        </div>
        {#if port.byAir && port.jobId === null}{#if mayAct}<button
                    class="act-quiet !min-h-10 shrink-0 text-sm"
                    disabled={agree.isPending}
                    onclick={() => agree.mutate(port.agreedBy === null)}
                    title={port.agreedBy === null
                        ? 'Its owner agrees to backups by air at night'
                        : `The owner agrees to backups at night, says ${port.agreedBy}`}
                    >{port.agreedBy === null ? 'Owner agrees' : 'Agreed, take back'}</button
                >{/if}
        {:else if port.jobId !== null}
            <a class="act-quiet !min-h-10 shrink-0" href="/jobs/{port.jobId}" use:link>Its job</a>
        {:else if mayAct}
            <button class="act !min-h-11 shrink-0 !px-3" disabled={busy} onclick={() => onopen(port.serial ?? '')}
                >Take in</button
            >
            {#if port.mode === 'normal'}<button
                    class="act-quiet !min-h-11 w-11 shrink-0 !px-0"
                    aria-label="Back up only: {port.serial}"
                    title="Back up only"
                    onclick={() => onbackup(port.serial ?? '')}><FolderDown size="1.3em" aria-hidden="true" /></button
                ><button
                    class="act-quiet !min-h-11 w-11 shrink-0 !px-0"
                    aria-label="Return only: {port.serial}"
                    title="Return only: installed elsewhere, its data is put back"
                    disabled={busy}
                    onclick={() => onreturn(port.serial ?? '')}><FolderUp size="1.3em" aria-hidden="true" /></button
                >{/if}
        {/if}
    {/if}
</li>
