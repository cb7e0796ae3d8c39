<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { CLOUD_KINDS, EXPORTED_KINDS } from '../../api/words';
    import { instant, kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const choose = jobAct((b: { encryption: 'plain' | 'encrypted'; sideExports: string[] }) =>
        api.backup(job.id, { ...b, name: job.backup.name }),
    );
    const attest = jobAct((there: boolean) =>
        api.cloud(
            job.id,
            there && on !== '' ? { takenAt: instant(`${on}T12:00`), madeOn: madeOn.trim(), kinds: CLOUD_KINDS } : null,
        ),
    );
    let on = $state('');
    let madeOn = $state('');
    const toggle = (kind: string) =>
        job.backup.sideExports.includes(kind)
            ? job.backup.sideExports.filter((k) => k !== kind)
            : [...job.backup.sideExports, kind];
</script>

<details class="panel py-2 text-sm">
    <summary class="cursor-pointer"
        >The backup will be <strong>{job.backup.encryption}</strong>{job.backup.sideExports.length > 0
            ? `, with ${job.backup.sideExports.map(kindName).join(', ')} written out`
            : ''}{job.cloud?.backup ? '; a cloud backup is attested' : ''}. Change it</summary
    >
    <div class="mt-2 grid gap-4 md:grid-cols-3">
        <fieldset class="flex flex-col gap-1">
            <legend class="font-semibold">How it is taken</legend>
            <label class="flex gap-2"
                ><input
                    type="radio"
                    class="h-6 w-6 shrink-0 accent-[var(--jade)]"
                    name="encryption"
                    checked={job.backup.encryption === 'plain'}
                    onchange={() => choose.mutate({ encryption: 'plain', sideExports: job.backup.sideExports })}
                />plain: nothing to forget, but saved passwords, health and pairings stay out</label
            >
            <label class="flex gap-2"
                ><input
                    type="radio"
                    class="h-6 w-6 shrink-0 accent-[var(--jade)]"
                    name="encryption"
                    checked={job.backup.encryption === 'encrypted'}
                    onchange={() => choose.mutate({ encryption: 'encrypted', sideExports: job.backup.sideExports })}
                />encrypted: carries those too; without its passphrase everything is lost</label
            >
        </fieldset>
        <fieldset>
            <legend class="font-semibold">Also written out in open formats</legend>
            <div class="flex flex-wrap gap-x-3">
                {#each EXPORTED_KINDS as k (k)}<label class="flex min-h-7 items-center gap-1.5"
                        ><input
                            type="checkbox"
                            class="h-6 w-6 accent-[var(--jade)]"
                            checked={job.backup.sideExports.includes(k)}
                            onchange={() =>
                                choose.mutate({ encryption: job.backup.encryption, sideExports: toggle(k) })}
                        />{kindName(k)}</label
                    >{/each}
            </div>
        </fieldset>
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
            <label class="flex flex-col">of<input class="field !min-h-9" type="date" required bind:value={on} /></label>
            <label class="flex flex-col"
                >made on<input
                    class="field !min-h-9 w-24 font-mono"
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
    </div>
</details>
