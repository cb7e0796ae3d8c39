<script lang="ts">
    import type { Goal } from '../../api/types';

    let { goal, busy, onplan }: { goal: Goal | null; busy: boolean; onplan: (goal: Goal) => void } = $props();

    type Form = 'newestInMajor' | 'newestBelow' | 'exact' | 'newestBefore';
    const forms: Record<Form, { words: string; hint: string }> = {
        newestInMajor: { words: 'the newest of major', hint: '8' },
        newestBelow: { words: 'the newest below', hint: '9.3.0' },
        exact: { words: 'exactly', hint: '8.7.0' },
        newestBefore: { words: 'the newest released before', hint: '2026-07-01' },
    };
    const first = () => (Object.entries(goal ?? { newestInMajor: '' })[0] ?? ['newestInMajor', '']) as [Form, string | number];
    let form = $state<Form>(first()[0]);
    let value = $state(String(first()[1]).slice(0, 10));

    function submit(event: SubmitEvent) {
        event.preventDefault();
        const text = value.trim();
        const full = /^\d+(\.\d+)?$/.test(text) ? `${text}${text.includes('.') ? '.0' : '.0.0'}` : text;
        onplan({ newestInMajor: { newestInMajor: Number(text) }, newestBelow: { newestBelow: full }, exact: { exact: full }, newestBefore: { newestBefore: `${text}T00:00:00Z` } }[form] as Goal);
    }
</script>

<form class="panel flex flex-wrap items-center gap-2 py-3" onsubmit={submit}>
    <label class="flex items-center gap-2"><span class="font-semibold">Go to</span>
        <select class="field" bind:value={form}>{#each Object.entries(forms) as [key, f] (key)}<option value={key}>{f.words}</option>{/each}</select>
    </label>
    <input class="field w-28 font-mono" aria-label="Version, number or date" placeholder={forms[form].hint} required bind:value />
    <button class="act-quiet" disabled={busy}>{busy ? 'Planning…' : 'Plan'}</button>
</form>
