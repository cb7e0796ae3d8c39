<script lang="ts">
    import { returns } from '../../api/returns';
    import type { Job } from '../../api/types';
    import { session } from '../../shell/session.svelte';
    import { jobAct } from './job.svelte';

    /** Whether the device is looked at as new before anything is put back: said, and changed while that is possible. */
    let { job }: { job: Job } = $props();
    const look = jobAct(() => returns.lookFirst(job.id));
    const end = jobAct(() => returns.endLook(job.id));
</script>

{#if session.mayAct && job.may['look-first'].allowed}<p class="mt-3 border-t border-edge pt-3 text-sm">
        <button class="act-quiet" disabled={look.isPending} onclick={() => look.mutate()}>Look at it first</button>
        <span class="text-quiet">The return waits until you let it go on.</span>
    </p>{:else if job.returnHeld && job.state === 'open'}<p class="mt-3 border-t border-edge pt-3 text-sm">
        {#if session.mayAct && job.may['end-look'].allowed}<button
                class="act-quiet"
                disabled={end.isPending}
                onclick={() => end.mutate()}
                >{job.position === 'looking-first' ? 'Go on with the return' : 'Do not hold the return'}</button
            >{/if}
        <span class="text-quiet">Held: the device is looked at as new before anything is put back.</span>
    </p>{/if}
