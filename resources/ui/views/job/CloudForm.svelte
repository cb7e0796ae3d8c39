<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { CLOUD_KINDS } from '../../api/words';
    import { instant } from '../../parts/format';
    import DayField from '../../parts/DayField.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const attest = jobAct((there: boolean) =>
        api.cloud(
            job.id,
            there && on !== '' ? { takenAt: instant(`${on}T12:00`), madeOn: madeOn.trim(), kinds: CLOUD_KINDS } : null,
        ),
    );
    let on = $state('');
    let madeOn = $state('');
</script>

<form
    class="flex flex-wrap items-end gap-2"
    onsubmit={(e) => {
        e.preventDefault();
        attest.mutate(true);
    }}
>
    <p class="w-full font-semibold">
        A backup in the vendor’s cloud{job.cloud ? `, attested by ${job.cloud.by}` : ''}
    </p>
    <label class="flex flex-col"
        >of<DayField name="takenAt" label="Day of the cloud backup" required bind:value={on} /></label
    >
    <label class="flex flex-col"
        >made on<input
            class="field !min-h-9 w-24 font-mono"
            name="madeOn"
            required
            pattern="\d+\.\d+\.\d+.*"
            placeholder="8.7.0"
            bind:value={madeOn}
        /></label
    >
    <button class="act-quiet !min-h-9">I attest it</button>
    {#if job.cloud}<button type="button" class="act-quiet !min-h-9" onclick={() => attest.mutate(false)}
            >Take it back</button
        >{/if}
</form>
