<script lang="ts">
    import type { JobSummary } from '../../api/types';
    import { STAGE } from '../../api/words';
    import { scannable } from '../../parts/scan';
    import { ORDERS, type Board, type Order } from './board.svelte';

    let { board, jobs }: { board: Board; jobs: JobSummary[] } = $props();
    const many = (stage: string) => jobs.filter((j) => j.stage === stage).length;
    const hands = $derived(jobs.filter((j) => j.needsHand).length);
</script>

<div
    class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-sm"
    role="group"
    aria-label="Sort and filter the jobs"
>
    <label class="flex items-center gap-2"
        >Order by<select
            class="field !min-h-10"
            name="order"
            value={board.order}
            onchange={(e) => (board.order = e.currentTarget.value as Order)}
            >{#each Object.entries(ORDERS) as [order, words] (order)}<option value={order}>{words}</option
                >{/each}</select
        ></label
    >
    <label class="flex items-center gap-2"
        >Show<select
            class="field !min-h-10"
            name="show"
            value={board.show}
            onchange={(e) => (board.show = e.currentTarget.value)}
            ><option value="all">all {jobs.length}</option><option value="hand">what wants a hand ({hands})</option
            >{#each Object.entries(STAGE) as [stage, name] (stage)}<option value={stage}>{name} ({many(stage)})</option
                >{/each}</select
        ></label
    >
    <input
        class="field w-52 !min-h-10"
        type="search"
        name="board-find"
        aria-label="Find among these jobs"
        placeholder="Model, holder, serial"
        value={board.find}
        oninput={(e) => (board.find = e.currentTarget.value)}
        {@attach scannable()}
    />
</div>
