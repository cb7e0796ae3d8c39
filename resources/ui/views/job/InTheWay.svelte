<script lang="ts">
    import { CircleCheck, CircleHelp, CircleSlash } from '@lucide/svelte';
    import type { Job } from '../../api/types';
    import { CHECK_STATE, HAND_CHECKS } from '../../api/words';
    import { checkName } from '../../parts/checks';
    import Countdown from '../../parts/Countdown.svelte';

    /** What will keep the erase line shut as things stand, so that it is seen to while there is time. */
    let { job }: { job: Job } = $props();
    const checks = $derived(job.checks.length > 0 ? job.checks : (job.plan?.checks ?? []));
    // of the device and its owner; what the job itself brings about is no hindrance yet
    const open = $derived(
        checks.filter((c) => HAND_CHECKS.includes(c.code) && (c.state === 'fail' || c.state === 'unknown')),
    );
    const good = $derived(
        checks.filter((c) => HAND_CHECKS.includes(c.code) && (c.state === 'pass' || c.state === 'attested')),
    );
</script>

{#snippet delay(code: string)}
    {#if code === 'lock-delay' && job.device?.lockDelayEndsAt != null}<Countdown
            until={job.device.lockDelayEndsAt}
            ahead="the delay ends in"
            past="the delay ended"
        />{/if}
{/snippet}

<section class="panel" aria-labelledby="in-the-way">
    <h2 id="in-the-way" class="mb-1">What stands in the way</h2>
    {#if checks.length === 0}<p class="text-quiet">Known when the device has been read.</p>
    {:else}
        {#if open.length === 0}<p class="flex items-center gap-2">
                <CircleCheck size="1.2em" class="text-jade" aria-hidden="true" />Nothing, as far as it can be read.
            </p>{:else}
            <ul class="grid gap-x-8 @3xl:grid-cols-2">
                {#each open as c (c.code)}<li
                        class="flex items-start gap-2 border-t border-edge py-1.5"
                        data-in-the-way={c.code}
                    >
                        {#if c.state === 'fail'}<CircleSlash
                                size="1.2em"
                                class="mt-0.5 shrink-0 text-amber"
                                aria-hidden="true"
                            />{:else}<CircleHelp
                                size="1.2em"
                                class="mt-0.5 shrink-0 text-quiet"
                                aria-hidden="true"
                            />{/if}
                        <span
                            ><strong>{checkName(c.code)}</strong>
                            <span class="text-sm text-quiet">{CHECK_STATE[c.state]}</span><span class="block text-sm"
                                >{c.mend}{@render delay(c.code)}</span
                            ></span
                        >
                    </li>{/each}
            </ul>{/if}
        {#if good.length > 0}<p class="mt-2 text-sm text-quiet">
                In order: {good.map((c) => checkName(c.code).toLowerCase()).join(', ')}.
            </p>{/if}
    {/if}
</section>
