<script lang="ts">
    import type { PracticeDevice } from '../../api/types';
    import { keyName, keyWords } from '../job/recovery.svelte';

    let {
        device,
        mayAct,
        speed,
        onkey,
    }: {
        device: PracticeDevice;
        mayAct: boolean;
        speed: number;
        onkey: (body: { action: 'press' | 'hold'; target: string; seconds?: number }) => void;
    } = $props();
    const KEYS = ['volume-up', 'volume-down', 'power'];
    /** Held for longer than this it is a hold, in seconds of the wall's clock. */
    const SHORT = 0.35;
    let held = $state<{ key: string; since: number; seconds: number } | null>(null);
    let timer: ReturnType<typeof setInterval> | undefined;
    // a key that is held counts in the rig's time, so that a hurried rig needs no patience
    const seconds = $derived(held === null ? 0 : held.seconds * Math.max(1, speed));

    function down(key: string) {
        if (!mayAct || held !== null) return;
        held = { key, since: performance.now(), seconds: 0 };
        timer = setInterval(() => {
            if (held !== null) held.seconds = (performance.now() - held.since) / 1000;
        }, 50);
    }

    function up() {
        if (held === null) return;
        clearInterval(timer);
        const [key, long] = [held.key, (performance.now() - held.since) / 1000];
        held = null;
        onkey(
            long < SHORT
                ? { action: 'press', target: key }
                : { action: 'hold', target: key, seconds: Math.round(long * Math.max(1, speed) * 10) / 10 },
        );
    }

    const wanted = $derived(device.keys[device.keysDone]);
    const exactly = (k: PracticeDevice['keys'][number]) => ({
        action: k.action === 'hold' ? ('hold' as const) : ('press' as const),
        target: k.target,
        seconds: k.seconds,
    });
</script>

<svelte:window onpointerup={up} />
<div class="flex flex-wrap items-center gap-2 border-t border-edge pt-3" role="group" aria-label="Keys of the device">
    {#each KEYS as key (key)}
        <button
            class="act-quiet relative min-w-28 overflow-hidden select-none {held?.key === key
                ? '!border-amber-mark bg-amber-wash'
                : ''}"
            disabled={!mayAct}
            onpointerdown={() => down(key)}
            onkeydown={(e) => {
                if ((e.key === ' ' || e.key === 'Enter') && !e.repeat) {
                    e.preventDefault();
                    down(key);
                }
            }}
            onkeyup={(e) => {
                if (e.key === ' ' || e.key === 'Enter') up();
            }}
            >{keyName(key)}{#if held?.key === key && held.seconds > SHORT}: {seconds.toFixed(0)} s{/if}</button
        >
    {/each}
    {#if wanted !== undefined && device.mode === 'normal'}<button
            class="act-quiet"
            disabled={!mayAct}
            onclick={() => onkey(exactly(wanted))}
            >{keyWords({ action: exactly(wanted).action, target: wanted.target, seconds: wanted.seconds ?? null })}, for
            me</button
        >{/if}
    <span class="text-sm text-quiet" aria-live="polite"
        >{device.heard ?? 'Press shortly, or hold with the pointer or the space bar.'}</span
    >
</div>
