<script lang="ts">
    import { returns } from '../../api/returns';
    import type { Job, Kind, ReturnChoice } from '../../api/types';
    import { kindName } from '../../parts/format';
    import { jobAct } from './job.svelte';

    let { job, choices }: { job: Job; choices: ReturnChoice[] } = $props();
    const bags = $derived(choices.filter((c) => c.where === 'bag'));
    let bag = $state<string | null>(null);
    let kinds = $state<Kind[]>([]);
    const from = $derived(bags.find((c) => c.backup === bag) ?? bags[0]);
    const offered = $derived(from?.oneByOne ?? []);
    let accepted = $state(false);
    // what is not brought in is lost to the device; it is accepted here with the owner
    const less = $derived(
        accepted ? (choices.find((c) => c.backup === from?.backup)?.kinds.map((k) => k.kind) ?? []) : [],
    );
    const keep = jobAct(() =>
        returns.choose(job.id, {
            mode: 'keep-as-new',
            backup: from?.backup ?? null,
            kinds: kinds.filter((k) => offered.includes(k)),
            accept: less,
        }),
    );
    const toggle = (kind: Kind) => (kinds = kinds.includes(kind) ? kinds.filter((k) => k !== kind) : [...kinds, kind]);
</script>

{#if bags.length > 0}
    <details class="mt-3 border-t border-edge pt-2 text-sm">
        <summary class="cursor-pointer"
            >Or the other way round: keep the device as new, and bring in chosen kinds only</summary
        >
        <form
            class="mt-2 flex flex-wrap items-end gap-3"
            onsubmit={(e) => {
                e.preventDefault();
                keep.mutate();
            }}
            aria-label="Keep as new"
        >
            <label class="flex flex-col"
                >From<select class="field max-w-80" value={from?.backup} onchange={(e) => (bag = e.currentTarget.value)}
                    >{#each bags as b (b.backup)}<option value={b.backup}>{b.label}</option>{/each}</select
                ></label
            >
            <fieldset class="flex flex-1 flex-wrap gap-x-4 gap-y-1">
                <legend class="text-quiet">Kinds that come one by one</legend>{#each offered as k (k)}<label
                        class="flex items-center gap-1.5"
                        ><input
                            type="checkbox"
                            class="h-4 w-4 accent-[var(--jade)]"
                            checked={kinds.includes(k)}
                            onchange={() => toggle(k)}
                        />{kindName(k)}</label
                    >{/each}
            </fieldset>
            <button class="act-quiet" disabled={keep.isPending || !accepted}
                >Keep it as new{kinds.length > 0 ? ' and bring these in' : ''}</button
            >
        </form>
        <label class="mt-2 flex items-start gap-2"
            ><input type="checkbox" class="mt-0.5 h-5 w-5 accent-[var(--jade)]" bind:checked={accepted} />The owner
            knows that what is not brought in here does not come back to the device.</label
        >
        <p class="mt-1 text-quiet">
            Everything else is lost to the device and stays in the bag; what syncs comes back by itself.
        </p>
    </details>
{/if}
