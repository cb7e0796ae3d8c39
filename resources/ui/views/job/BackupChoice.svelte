<script lang="ts">
    import { api } from '../../api/jobs';
    import type { Job } from '../../api/types';
    import { EXPORTED_KINDS } from '../../api/words';
    import { kindName } from '../../parts/format';
    import CloudForm from './CloudForm.svelte';
    import { jobAct } from './job.svelte';

    let { job }: { job: Job } = $props();
    const choose = jobAct((b: { encryption: 'plain' | 'encrypted'; sideExports: string[] }) =>
        api.backup(job.id, { ...b, name: job.backup.name }),
    );
    const toggle = (kind: string) =>
        job.backup.sideExports.includes(kind)
            ? job.backup.sideExports.filter((k) => k !== kind)
            : [...job.backup.sideExports, kind];
</script>

<details class="panel min-w-72 flex-1 px-3 py-2.5 text-sm">
    <summary class="cursor-pointer"
        >The backup will be <strong>{job.backup.encryption}</strong>{job.backup.sideExports.length > 0
            ? `, with ${job.backup.sideExports.map(kindName).join(', ')} written out`
            : ''}{job.cloud?.backup ? '; a cloud backup is attested' : ''}. Change it</summary
    >
    <div class="mt-2 grid gap-4 @3xl:grid-cols-3">
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
        <CloudForm {job} />
    </div>
</details>
