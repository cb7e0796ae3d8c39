<script lang="ts">
    import { install } from '../../api/install';
    import type { Job } from '../../api/types';
    import { version } from '../../parts/format';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';
    import { nextAct } from './nextact.svelte';

    /** In recovery mode, with nothing written: the last yes, or out again. */
    let { job }: { job: Job } = $props();
    const confirm = jobAct(() => install.confirm(job.id));
    const leave = jobAct(() => install.leaveRecovery(job.id));
    const leg = $derived(job.route?.legs[0]);
    const erases = $derived(leg?.move === 'erase-install');
    const yes = $derived(`${erases ? 'Erase it and install' : 'Install'} ${version(leg?.to.version ?? '')} now`);
    $effect(() =>
        nextAct.offer('confirm-install', {
            label: yes,
            run: () => confirm.mutate(),
            disabled: confirm.isPending || leave.isPending,
        }),
    );
</script>

<section class="panel border-2 border-amber-mark" aria-labelledby="confirm">
    <h2 id="confirm">The device is in recovery mode. Nothing has been written yet.</h2>
    <p class="mt-1">
        {#if erases}Installing erases it: from there it only goes forward, and its data is in the sealed backup{job
                .route?.base === null
                ? ''
                : ' until it is put back'}.{:else}Installing keeps its data on it; from there it only goes forward.{/if}
    </p>
    {#if session.mayAct}<div class="mt-3 flex flex-wrap items-center gap-3">
            <button
                class="act-quiet"
                data-confirm
                disabled={confirm.isPending || leave.isPending}
                onclick={() => confirm.mutate()}>{yes}</button
            >
            {#if job.may['leave-recovery'].allowed}<button
                    class="act-quiet ml-auto"
                    disabled={confirm.isPending || leave.isPending}
                    onclick={() => leave.mutate()}>Leave without writing</button
                >{/if}
        </div>
        <p class="mt-2 text-sm text-quiet">
            Leaving brings the device back as it was, and the job to before the erase line with its backup kept.
        </p>{/if}
</section>
