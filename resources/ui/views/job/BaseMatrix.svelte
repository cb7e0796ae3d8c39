<script lang="ts">
    import { returns } from '../../api/returns';
    import type { Job, Return, ReturnChoice } from '../../api/types';
    import { LOSS_OUTCOMES, OUTCOME_SHORT, SOURCE_WAY } from '../../api/words';
    import { day, dayAndClock, kindName, version } from '../../parts/format';
    import Notice from '../../parts/Notice.svelte';
    import AsNewForm from './AsNewForm.svelte';
    import { jobAct } from './job.svelte';
    import { nextAct } from './nextact.svelte';

    let {
        job,
        told,
        mayAct,
        others,
        onothers,
    }: { job: Job; told: Return; mayAct: boolean; others: boolean; onothers: () => void } = $props();
    const may = $derived(mayAct && job.may['choose-return'].allowed);
    let asked = $state<string | null | undefined>(undefined);
    const choose = jobAct(
        (c: ReturnChoice) =>
            returns.choose(job.id, {
                mode: c.backup === null ? 'put-nothing-back' : c.where === 'cloud' ? 'from-cloud' : 'put-back',
                backup: c.backup,
                accept: c.losesMore,
            }),
        () => (asked = undefined),
    );
    // where less comes back than was promised, or nothing at all, it is asked again and accepted by name
    const pick = (c: ReturnChoice) =>
        c.losesMore.length > 0 || c.backup === null ? (asked = c.backup) : choose.mutate(c);
    const wanted = $derived(told.choices.find((c) => c.backup === asked));
    const can = $derived(told.choices.filter((c) => c.reasons.length === 0 && c.backup !== null));
    const nothing = $derived(told.choices.find((c) => c.backup === null));
    const cannot = $derived(told.choices.filter((c) => c.reasons.length > 0));
    const chosen = (c: ReturnChoice) =>
        told.chosen !== null && told.chosen.mode !== 'keep-as-new' && c.backup === told.chosen.backup;
    const name = (c: ReturnChoice) =>
        c.where === 'cloud' ? 'Owner’s cloud backup' : c.ofThisJob ? 'This job’s backup' : (c.label ?? c.backup ?? '');
    const nameOf = (backup: string) =>
        backup === 'cloud'
            ? 'the owner’s cloud backup'
            : (told.choices.find((c) => c.backup === backup)?.label ?? backup);
    const from = (c: ReturnChoice) =>
        c.takenAt === null ? 'the device stays as new' : `${dayAndClock(c.takenAt)}, from ${version(c.madeOn ?? '')}`;
    const how = (c: ReturnChoice) =>
        c.base === null || c.base.treatment === 'none'
            ? ''
            : c.base.treatment === 'lowered'
              ? `lowered to ${version(c.base.declaredVersion ?? '')}${c.base.unproven ? ', unproven' : ''}`
              : 'as it is';
    const proposed = $derived(can.find((c) => c.backup === told.proposed));
    $effect(() =>
        nextAct.offer(
            'choose-return',
            may && proposed !== undefined && !chosen(proposed)
                ? {
                      label: proposed.ofThisJob ? 'Put this job’s backup back' : 'Put the proposed one back',
                      run: () => pick(proposed),
                      disabled: choose.isPending,
                  }
                : null,
        ),
    );
    const kinds = $derived(can[0]?.kinds.map((k) => k.kind) ?? []);
    const fate = (c: ReturnChoice, kind: string) => c.kinds.find((k) => k.kind === kind);
    const cell = (c: ReturnChoice, kind: string): { words: string; loss: boolean } => {
        const f = fate(c, kind);
        if (f === undefined) return { words: '–', loss: false };
        const via = (SOURCE_WAY as Record<string, string>)[f.from ?? ''] ?? '';
        const words = f.outcome === 'returned-as-of' && f.asOf ? `as of ${day(f.asOf)}` : OUTCOME_SHORT[f.outcome];
        return { words: via === '' ? words : `${words}, ${via}`, loss: LOSS_OUTCOMES.includes(f.outcome) };
    };
    // what is the same everywhere steps back
    const shown = $derived(kinds.filter((k) => new Set(can.map((c) => cell(c, k).words)).size > 1));
    const same = $derived(kinds.filter((k) => !shown.includes(k)));
</script>

<section class="panel" aria-labelledby="choices">
    <div class="flex flex-wrap items-baseline gap-x-4">
        <h2 id="choices">What can be put back</h2>
        <p class="text-sm text-quiet">The least loss first. The device has the last word.</p>
        <button class="ml-auto text-sm underline underline-offset-4" aria-pressed={others} onclick={onothers}
            >{others ? 'Show this device’s backups only' : 'Is it under another device’s name?'}</button
        >
    </div>
    {#each told.refused as r (r.at)}<div class="mt-2">
            <Notice tone="loss">The device refused {nameOf(r.backup)}, {dayAndClock(r.at)}: “{r.words}”</Notice>
        </div>{/each}
    {#if told.unknown !== null}<div class="mt-2"><Notice tone="amber">{told.unknown}</Notice></div>{/if}
    {#if can.length > 0}
        <div class="mt-2 overflow-x-auto">
            <table
                class="w-full table-fixed text-sm"
                style:min-width="{8 + can.length * 12}rem"
                aria-label="Backups side by side"
            >
                <thead>
                    <tr class="align-top"
                        ><td class="w-32"></td>
                        {#each can as c (c.backup)}
                            <th
                                scope="col"
                                class="rounded-t-md border-x-2 border-t-2 px-2 pt-2 text-left font-normal {chosen(c)
                                    ? 'border-jade bg-jade-wash'
                                    : 'border-transparent'}"
                                data-choice={c.backup ?? 'none'}
                            >
                                <span class="block font-semibold">{name(c)}</span><span class="block text-quiet"
                                    >{from(c)}</span
                                ><span class="block"
                                    >{how(c)}{c.source === 'import'
                                        ? `${how(c) === '' ? '' : ', '}brought in`
                                        : ''}</span
                                >
                                {#if c.backup === told.proposed}<span class="block text-jade-strong"
                                        >proposed: the least loss</span
                                    >{/if}
                            </th>
                        {/each}
                    </tr>
                </thead>
                <tbody>
                    {#each shown as kind (kind)}
                        <tr
                            ><th scope="row" class="py-0.5 pr-2 text-left font-normal text-quiet">{kindName(kind)}</th>
                            {#each can as c (c.backup)}{@const v = cell(c, kind)}<td
                                    class="border-x-2 px-2 py-0.5 {chosen(c)
                                        ? 'border-jade bg-jade-wash'
                                        : 'border-transparent'} {v.loss ? 'font-semibold text-loss' : ''}">{v.words}</td
                                >{/each}
                        </tr>
                    {/each}
                    <tr
                        ><td></td>
                        {#each can as c (c.backup)}
                            <td
                                class="rounded-b-md border-x-2 border-b-2 px-2 pt-1 pb-2 {chosen(c)
                                    ? 'border-jade bg-jade-wash'
                                    : 'border-transparent'}"
                            >
                                {#if chosen(c)}<p class="font-semibold text-jade-strong">This is put back.</p>
                                {:else if may}<button
                                        class="{c.backup === told.proposed ? 'act' : 'act-quiet'} w-full"
                                        disabled={choose.isPending}
                                        onclick={() => pick(c)}>Put this one back</button
                                    >{/if}
                            </td>
                        {/each}
                    </tr>
                </tbody>
            </table>
        </div>
        {#if same.length > 0}<p class="text-sm text-quiet">
                {can.length > 1 ? 'The same in all' : 'What comes of each kind'}: {same
                    .map((k) => `${kindName(k)} ${can[0] === undefined ? '' : cell(can[0], k).words}`)
                    .join(', ')}.
            </p>{/if}
        {#if !job.may['choose-return'].allowed && job.state === 'open'}<p class="mt-1 text-sm text-quiet">
                {job.may['choose-return'].words}
            </p>{/if}
    {/if}
    {#if cannot.length > 0}
        <h3 class="mt-3 text-sm text-quiet">Cannot be put back</h3>
        <ul class="text-sm">
            {#each cannot as c (c.backup)}<li class="border-t border-edge py-1" data-cannot={c.backup}>
                    <span>{name(c)}{c.serial !== null && c.serial !== job.serial ? ` (${c.serial})` : ''}</span>
                    <span class="text-quiet">{c.takenAt === null ? '' : from(c)}</span>
                    {#each c.reasons as r (r.code)}<span class="text-amber">{r.words}</span>
                        <span class="code">{r.code}</span>
                    {/each}
                </li>{/each}
        </ul>
    {/if}
    {#if wanted}
        <div class="mt-3 rounded-md bg-loss-wash p-3 text-loss" role="alert" data-confirm>
            <p class="font-semibold">
                {wanted.backup === null
                    ? 'Put nothing back: the device stays as new.'
                    : `${name(wanted)} brings less back than was promised.`}
            </p>
            {#if wanted.losesMore.length > 0}<p class="text-sm">
                    Less comes back of {wanted.losesMore.map(kindName).join(', ')}. Accept it by name, with the owner.
                </p>{/if}
            <p class="mt-2 flex gap-2">
                <button class="act" disabled={choose.isPending} onclick={() => choose.mutate(wanted)}
                    >{wanted.losesMore.length > 0 ? 'Accept these losses and ' : 'Yes, '}{wanted.backup === null
                        ? 'put nothing back'
                        : 'put this one back'}</button
                ><button class="act-quiet" onclick={() => (asked = undefined)}>No</button>
            </p>
        </div>
    {/if}
    {#if may}
        <AsNewForm {job} choices={can} />
        {#if nothing && nothing.reasons.length === 0}<p class="mt-3 border-t border-edge pt-2 text-sm text-quiet">
                {chosen(nothing) ? 'Nothing is put back.' : ''}
                {#if !chosen(nothing)}<button
                        class="underline underline-offset-4"
                        data-choice="none"
                        onclick={() => pick(nothing)}>Put nothing back</button
                    >, and leave the device as new.{/if}
            </p>{/if}
    {/if}
</section>
