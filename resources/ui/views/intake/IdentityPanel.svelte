<script lang="ts">
    import { CircleCheck, CircleHelp } from '@lucide/svelte';
    import Notice from '../../parts/Notice.svelte';
    import type { SaidDevice } from './said.svelte';

    let { device }: { device: SaidDevice } = $props();
    const identity = $derived(device.identity);
    const settled = $derived(identity?.candidates.length === 1 ? identity.candidates[0] : null);
    const questions = $derived(identity?.questions ?? []);
</script>

<div aria-live="polite" class="flex flex-col gap-3">
    {#if device.problem !== null}
        <Notice tone="amber">{device.problem}</Notice>
    {:else if settled}
        <p class="flex items-center gap-2 text-lg font-semibold text-jade">
            <CircleCheck size="1.4em" aria-hidden="true" />{settled.name}
            {settled.variant}
        </p>
        <p class="text-sm">
            Hardware id <span class="font-mono">{settled.hardwareId}</span>. When it is plugged in, the device tells by
            itself whether this is right.
        </p>
    {:else if identity !== null}
        <p class="flex items-center gap-2 font-semibold text-amber">
            <CircleHelp size="1.4em" aria-hidden="true" />{identity.candidates.length} variants still fit
        </p>
        <ul class="text-sm">
            {#each identity.candidates as c (c.hardwareId)}<li class="flex justify-between border-t border-edge py-1">
                    <span>{c.name} {c.variant}</span><span class="code">{c.hardwareId}</span>
                </li>{/each}
        </ul>
        {#if questions[0]}<p>
                <span class="text-quiet"
                    >{questions[0].code === 'plug-in'
                        ? 'No question tells them apart any more.'
                        : 'This question tells most of them apart:'}</span
                > <strong>{questions[0].words}</strong>
            </p>{/if}
        {#if questions.length > 2}<p class="text-sm text-quiet">
                Also of use: {questions
                    .slice(1, -1)
                    .map((q) => q.words)
                    .join(' ')}
            </p>{/if}
        <p class="text-sm text-quiet">
            Until one is left, every build is shut with <span class="code">model-unresolved</span>.
        </p>
    {:else}
        <p class="text-quiet">
            The name on the box or the IMEI is enough to begin with. What tells the variants apart is asked as soon as
            it is needed.
        </p>
    {/if}
</div>
