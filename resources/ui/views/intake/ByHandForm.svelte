<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { push } from 'svelte-spa-router';
    import { intake } from '../../api/intake';
    import Notice from '../../parts/Notice.svelte';
    import IdentityPanel from './IdentityPanel.svelte';
    import { SaidDevice } from './said.svelte';
    import SaidFields from './SaidFields.svelte';

    const device = new SaidDevice();
    const queries = useQueryClient();
    const open = createMutation(() => ({
        mutationFn: () => intake.byHand(device.said),
        onSuccess: (job) => {
            queries.setQueryData(['job', job.id], job);
            void push(`/jobs/${job.id}/${job.plan?.verdict === 'reachable' ? 'choose' : 'identify'}`);
        },
    }));
</script>

<div class="grid items-start gap-4 @4xl:grid-cols-[1.4fr_1fr]">
    <form
        class="panel flex flex-col gap-4"
        onsubmit={(e) => {
            e.preventDefault();
            open.mutate();
        }}
    >
        <SaidFields {device} withGoal />
        {#if open.isError}<Notice tone="amber">{open.error.message}</Notice>{/if}
        <div class="flex items-center gap-4">
            <button class="act shrink-0" disabled={open.isPending}
                >{open.isPending ? 'Taking in…' : 'Take in by hand'}</button
            >
            <p class="text-sm text-quiet">
                The routes can be looked at at once. The job goes on by itself when the device is plugged in.
            </p>
        </div>
    </form>
    <section class="panel" aria-labelledby="which">
        <h2 id="which" class="mb-2">Which one it is</h2>
        <IdentityPanel {device} />
    </section>
</div>
