<script lang="ts">
    import { FlaskConical } from '@lucide/svelte';
    import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { notices } from '../../shell/notices.svelte';
    import { rig } from '../../api/install';
    import type { PracticeDevice } from '../../api/types';
    import { counted } from '../../parts/format';
    import { keepInAddress, queryOf } from '../../parts/query';
    import Notice from '../../parts/Notice.svelte';
    import { session } from '../../shell/session.svelte';
    import DeviceHands from './DeviceHands.svelte';
    import VendorHands from './VendorHands.svelte';

    const queries = useQueryClient();
    const shown = createQuery(() => ({ queryKey: ['rig'], queryFn: rig.show, refetchInterval: 1500 }));
    const speed = createMutation(() => ({
        mutationFn: (to: { bench: number; speed: number }) => rig.speed(to.bench, to.speed),
        onSettled: () => queries.invalidateQueries({ queryKey: ['rig'] }),
        onError: (e: Error) => notices.refused(e),
    }));
    const speeds = [1, 5, 20, 60];
    // by port, and those in the drawer last
    const inOrder = (devices: PracticeDevice[]) =>
        [...devices].sort(
            (a, b) => Number(a.port ?? Infinity) - Number(b.port ?? Infinity) || a.serial.localeCompare(b.serial),
        );
    const chosen = $derived(queryOf('device') || null);
    const choose = (serial: string) => keepInAddress({ device: serial });
</script>

<svelte:head><title>Rig, for practice · Jade Step</title></svelte:head>
<div
    class={[
        'mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-md px-4 py-2',
        'border-2 border-dashed border-amber-mark bg-amber-wash text-amber',
    ]}
>
    <FlaskConical size="1.4em" aria-hidden="true" />
    <h1>Rig</h1>
    <p>
        For practice: these devices and vendors are simulated, and what is done here is done by your hands to them. No
        real device has such a page.
    </p>
</div>
{#if shown.isPending}<p class="text-quiet" role="status">Looking at the rig…</p>
{:else if !shown.data}<Notice tone="amber">{shown.error?.message}</Notice>
{:else}
    {#if shown.isError}<div class="mb-3"><Notice tone="amber">{shown.error.message}</Notice></div>{/if}
    {#if shown.data.benches.length === 0 && shown.data.vendors.length === 0}<Notice
            >No bench and no vendor here is for practice.</Notice
        >{/if}
    {#each shown.data.benches as bench (bench.id)}
        {#if bench.practice === null}<Notice tone="amber">The device link of {bench.name} does not answer.</Notice>
        {:else}
            {@const practice = bench.practice}
            {@const devices = inOrder(practice.devices)}
            {@const device = devices.find((d) => d.serial === chosen) ?? devices[0]}
            <section aria-labelledby="rig-{bench.id}" class="mb-5">
                <div class="mb-2 flex flex-wrap items-center gap-3">
                    <h2 id="rig-{bench.id}">{bench.name}</h2>
                    <span class="ml-auto text-sm text-quiet">Its time runs</span>
                    <div class="flex" role="group" aria-label="Speed of its time">
                        {#each speeds as s (s)}<button
                                class={[
                                    'act-quiet !min-h-9 rounded-none first:rounded-l-md last:rounded-r-md',
                                    practice.speed === s && '!border-jade bg-jade-wash font-semibold',
                                ]}
                                aria-pressed={practice.speed === s}
                                disabled={!session.mayAct || speed.isPending}
                                onclick={() => speed.mutate({ bench: bench.id, speed: s })}
                                >{s === 1 ? 'as usual' : `${s} times`}</button
                            >{/each}
                    </div>
                    {#if !speeds.includes(practice.speed)}<span class="text-sm text-quiet"
                            >now {practice.speed} times</span
                        >{/if}
                </div>
                <div class="grid items-start gap-4 @4xl:grid-cols-[minmax(18rem,24rem)_1fr]">
                    <ul class="panel divide-y divide-edge p-0" aria-label="Devices">
                        {#each devices as d (d.serial)}
                            <li>
                                <button
                                    class={[
                                        'flex w-full items-center gap-3 px-3 py-2 text-left hover:bg-sunken',
                                        device?.serial === d.serial && 'bg-jade-wash',
                                    ]}
                                    aria-pressed={device?.serial === d.serial}
                                    onclick={() => choose(d.serial)}
                                >
                                    <span
                                        class={[
                                            'grid size-8 shrink-0 place-items-center rounded-full font-mono text-sm',
                                            d.port === null
                                                ? 'border border-dashed border-quiet text-quiet'
                                                : 'bg-sunken',
                                        ]}>{d.port ?? '–'}</span
                                    >
                                    <span class="min-w-0 flex-1 leading-tight"
                                        ><span class="font-semibold">{d.modelName}</span>
                                        <span class="code">{d.serial}</span>
                                        <span class="block text-sm text-quiet"
                                            >{d.port === null
                                                ? 'in the drawer'
                                                : d.hidden
                                                  ? 'plugged in, not recognised'
                                                  : `${d.mode} mode`}{d.faults.length > 0
                                                ? ` · waiting: ${counted(d.faults.length, 'fault')}`
                                                : ''}{d.asks === null ? '' : ' · asks something'}</span
                                        ></span
                                    >
                                </button>
                            </li>
                        {/each}
                    </ul>
                    {#if device}{#key device.serial}<DeviceHands
                                bench={bench.id}
                                {practice}
                                {device}
                                mayAct={session.mayAct}
                            />{/key}{/if}
                </div>
            </section>
        {/if}
    {/each}
    <div class="grid gap-4 @4xl:grid-cols-2">
        {#each shown.data.vendors as vendor (vendor.id)}<VendorHands {vendor} mayAct={session.mayAct} />{/each}
    </div>
{/if}
