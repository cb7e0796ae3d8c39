<script lang="ts">
    import type { Goal, WrittenGoal } from '../../api/types';
    import { version } from '../../parts/format';

    let {
        goal,
        busy,
        problem,
        onplan,
    }: { goal: Goal | null; busy: boolean; problem: string | null; onplan: (goal: WrittenGoal) => void } = $props();

    type Form = 'newestInMajor' | 'newestBelow' | 'exact' | 'newestBefore';
    const forms: Record<Form, { words: string; hint: string }> = {
        newestInMajor: { words: 'the newest of major', hint: '8' },
        newestBelow: { words: 'the newest below', hint: '9.3' },
        exact: { words: 'exactly', hint: '8.7, or 9.4 candidate' },
        newestBefore: { words: 'the newest released before', hint: '2026-07-01' },
    };
    const first = () =>
        (Object.entries(goal ?? { newestInMajor: '' })[0] ?? ['newestInMajor', '']) as [Form, string | number];
    const shown = (of: Form, is: string | number) =>
        of === 'newestBefore' ? String(is).slice(0, 10) : version(String(is));
    let form = $state<Form>(first()[0]);
    let value = $state(shown(...first()));

    /** The server reads a version in every spelling that is shown anywhere here. */
    function submit(event: SubmitEvent) {
        event.preventDefault();
        const text = value.trim();
        const asked: Record<Form, Goal> = {
            newestInMajor: { newestInMajor: Number.parseInt(text, 10) },
            newestBelow: { newestBelow: text },
            exact: { exact: text },
            newestBefore: { newestBefore: `${text}T00:00:00Z` },
        };
        onplan(form === 'newestInMajor' && !/^\d+$/.test(text) ? { words: text } : asked[form]);
    }
</script>

<form class="flex flex-wrap items-center gap-2" onsubmit={submit}>
    <label class="flex items-center gap-2"
        ><span class="font-semibold">Go to</span>
        <select class="field" bind:value={form}
            >{#each Object.entries(forms) as [key, f] (key)}<option value={key}>{f.words}</option>{/each}</select
        >
    </label>
    <input
        class="field w-32 font-mono"
        name="goal"
        data-about="words exact newestInMajor newestBelow newestBefore"
        aria-label="Version, number or date"
        placeholder={forms[form].hint}
        aria-invalid={problem !== null}
        required
        bind:value
    />
    <button class="act-quiet" disabled={busy}>{busy ? 'Planning…' : 'Plan'}</button>
    {#if problem !== null}<p class="w-full rounded-md bg-amber-wash p-2 text-amber" role="alert">{problem}</p>{/if}
</form>
